<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { answered, api, type CodeShown, type Device } from '../api/client'
import { useEscape } from '../shared/useEscape'
import { useWords } from '../shared/useWords'
import { useDevices, useDoorState } from './useDoor'

const open = defineModel<boolean>({ required: true })
useEscape(open)

const door = useDoorState()
const { devices, shutOut } = useDevices()
const words = useWords()
const code = ref<CodeShown>()
const address = computed(() => door.data.value?.address)
watch(open, () => (code.value = undefined))

// A code opens once: what has let a phone in is shown no more.
watch(devices.data, (now, before) => {
  const came = now?.find(
    (each) => each.role === code.value?.role && !before?.some(({ id }) => id === each.id),
  )
  if (!came || !before) return
  code.value = undefined
  words.say(`${came.name} was let in.`)
})

async function show(role: 'reader' | 'writer') {
  try {
    code.value = await answered<CodeShown>(api.POST('/api/v1/door/codes', { body: { role } }))
  } catch (error) {
    words.complain(error)
  }
}

async function out(device: Device) {
  try {
    await shutOut(device)
    words.say(`${device.name} is shut out.`)
  } catch (error) {
    words.complain(error)
  }
}

function at(time: string): string {
  return new Date(time).toLocaleString('en-GB', {
    day: 'numeric',
    month: 'short',
    hour: '2-digit',
    minute: '2-digit',
  })
}
</script>

<template>
  <v-dialog v-model="open" max-width="620" scrollable aria-label="Let a phone in">
    <v-sheet class="sheet">
      <h2>Let a phone in</h2>
      <template v-if="address">
        <p class="small">
          A code opens once, within ten minutes, for one phone on this network. Scan it, or open
          <span class="figure">{{ address }}/let-in</span> and type it.
        </p>
        <div class="verbs">
          <v-btn class="press--main" autofocus @click="show('writer')">Show a code</v-btn>
          <v-btn @click="show('reader')">One that only looks</v-btn>
        </div>
        <div v-if="code" class="code" role="status">
          <img :src="code.picture" alt="The code, to be scanned" width="176" height="176" />
          <div>
            <p class="figure letters">{{ code.code }}</p>
            <p class="small">
              comes in {{ code.role === 'writer' ? 'to look and to change' : 'to look' }}, until
              {{ at(code.expires_at) }}
            </p>
          </div>
        </div>
        <details class="small">
          <summary>What the phone says first, and what this network can see</summary>
          <p>
            The connection is encrypted with a certificate that the workshop made for itself, so the
            phone warns once. It is the right one if the phone shows this SHA-256 fingerprint:
          </p>
          <p class="figure print">{{ door.data.value?.fingerprint }}</p>
          <p>
            To have the phone keep the pages for the flying field, install
            <a href="/api/v1/door/certificate.crt">what vouches for it</a> on the phone (it vouches
            for addresses of a local network only; its fingerprint is
            <span class="figure print">{{ door.data.value?.voucher_fingerprint }}</span>).
          </p>
          <p>
            Others on this network can see that this machine answers here, and the empty page that
            asks for a code. They cannot read or change anything without one. On a network of
            strangers, start without <code>--lan</code>.
          </p>
        </details>
        <h3>Let in</h3>
        <p v-if="!devices.data.value?.length" class="faint small">Nobody yet.</p>
        <ul v-else class="devices">
          <li v-for="device in devices.data.value" :key="device.id">
            <span class="name">{{ device.name }}</span>
            <span class="small faint"
              >{{ device.role === 'writer' ? 'looks and changes' : 'looks' }}, seen
              {{ at(device.last_seen_at) }}</span
            >
            <v-btn size="small" :aria-label="`Shut ${device.name} out`" @click="out(device)"
              >Shut out</v-btn
            >
          </li>
        </ul>
      </template>
      <template v-else>
        <p>
          This workshop answers to this machine only. To let a phone of the same network in, start
          it with <code>oaken-scale serve --lan</code>; a code shown here then opens it, and each
          phone can be shut out again.
        </p>
      </template>
      <v-btn @click="open = false">Close</v-btn>
    </v-sheet>
  </v-dialog>
</template>

<style scoped>
.sheet {
  padding: 20px 24px;
  display: grid;
  gap: 12px;
  justify-items: start;
  max-height: calc(100dvh - 48px);
  overflow-y: auto;
}

.verbs {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
}

.code {
  display: flex;
  flex-wrap: wrap;
  gap: 20px;
  align-items: center;
}

.code img {
  image-rendering: pixelated;
  border: 1px solid var(--ink);
}

.letters {
  font-size: 34px;
  letter-spacing: 0.06em;
}

.print {
  overflow-wrap: anywhere;
}

a {
  color: inherit;
}

details p {
  margin-top: 8px;
}

.devices {
  list-style: none;
  padding: 0;
  margin: 0;
  width: 100%;
}

.devices li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 14px;
  padding: 6px 0;
  border-top: 1px solid var(--line);
}

.name {
  font-weight: 600;
}

.devices .small {
  flex: 1;
}
</style>
