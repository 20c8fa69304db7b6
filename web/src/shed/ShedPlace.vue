<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { once } from '../shared/once'
import { renewed } from '../shared/renewed'
import { computed, defineAsyncComponent, nextTick, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { answered, api, type Opened, type Shelved } from '../api/client'
import { useDoorState } from '../door/useDoor'
import { useLamp } from '../shared/useLamp'
import { useKeys } from '../shared/useKeys'
import { useWords } from '../shared/useWords'
import PlaceLine from '../shared/PlaceLine.vue'
import WhatWasSaved from './WhatWasSaved.vue'
import BuildTag from './BuildTag.vue'

const DoorSheet = defineAsyncComponent(() => import('../door/DoorSheet.vue'))
const BeginBuild = defineAsyncComponent(() => import('./BeginBuild.vue'))

const router = useRouter()
const client = useQueryClient()
const words = useWords()
const { lamp, toggle } = useLamp()

const shelf = useQuery({
  queryKey: ['shelf'],
  queryFn: () => answered<Shelved[]>(api.GET('/api/v1/builds')),
  refetchOnMount: 'always',
})
const away = ref(false)
const builds = computed(() =>
  (shelf.data.value ?? []).filter((build) => build.put_away === away.value),
)
const putAway = computed(() => (shelf.data.value ?? []).filter((build) => build.put_away).length)

/** The widest plane sets the scale of all. */
const across = computed(() =>
  Math.max(
    600,
    ...(shelf.data.value ?? []).flatMap((build) =>
      build.outlines.flatMap((outline) => outline.corners.map(([, y]) => 2 * Math.abs(y) + 60)),
    ),
  ),
)

const door = useDoorState()
const isLettingIn = ref(false)
/** The button that the sheet was opened with by keys: they go on from there when it closes. */
let opener: HTMLElement | undefined
function letIn(event: MouseEvent) {
  opener = event.detail === 0 ? (event.currentTarget as HTMLElement) : undefined
  isLettingIn.value = true
}
watch(isLettingIn, (now) => !now && void nextTick(() => opener?.focus()))
const beginning = ref(false)
const hasBegun = ref(false)
function begin() {
  beginning.value = hasBegun.value = true
}
useKeys({ b: begin })
const file = ref<HTMLInputElement>()

async function bringIn(event: Event) {
  const input = event.target as HTMLInputElement
  const chosen = input.files?.[0]
  input.value = ''
  if (!chosen) return
  try {
    const response = await fetch('/api/v1/builds/import', {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: await chosen.text(),
    })
    const told = await answered<Opened>(
      response.json().then((body) => ({ data: body, error: body, response })),
    )
    words.say(`${told.build.name} is on the shelf.`)
    void renewed(client, ['shelf'])
  } catch (error) {
    words.complain(error)
  }
}

async function shelve(build: Shelved) {
  try {
    await answered(
      api.PUT('/api/v1/builds/{build_id}/put-away', {
        params: { path: { build_id: build.id } },
        body: { away: !build.put_away },
      }),
    )
    void renewed(client, ['shelf'])
  } catch (error) {
    words.complain(error)
  }
}

/** A copy with its weighings, or the next version: what it weighs as figures, nothing weighed. */
const again = once(async (build: Shelved, way: 'copy' | 'next-version') => {
  const path = { build_id: build.id }
  const name = way === 'copy' ? `${build.name}, copy` : `${build.name} 2`
  try {
    const told = await answered<Opened>(
      way === 'copy'
        ? api.POST('/api/v1/builds/{build_id}/copy', { params: { path }, body: { name } })
        : api.POST('/api/v1/builds/{build_id}/next-version', { params: { path }, body: { name } }),
    )
    words.say(`${told.build.name} is on the shelf.`)
    void renewed(client, ['shelf'])
  } catch (error) {
    words.complain(error)
  }
})

/** A made-up half-built plane with one slip in it, to learn on. */
const practise = once(async () => {
  try {
    const told = await answered<Opened>(api.POST('/api/v1/practice', { body: {} }))
    void router.push({ name: 'bench', params: { id: told.build.id } })
  } catch (error) {
    words.complain(error)
  }
})

function begun(id: string) {
  void router.push({ name: 'plan', params: { id } })
}
</script>

<template>
  <div class="shed">
    <header>
      <h1>Shed</h1>
      <v-verb class="small faint" @click="toggle">
        {{ lamp ? 'daylight' : 'lamp' }}
      </v-verb>
      <span class="space" />
      <v-btn class="press--main" @click="begin">Begin a build</v-btn>
      <v-btn :to="{ name: 'begin' }">With what is there</v-btn>
      <v-btn @click="file?.click()">From a file</v-btn>
      <v-btn class="press--quiet" :to="{ name: 'buying' }">To buy</v-btn>
      <v-btn class="press--quiet" @click="practise">Practise</v-btn>
      <v-btn v-if="door.data.value?.here" class="press--quiet" @click="letIn">Let a phone in</v-btn>
      <input
        ref="file"
        type="file"
        accept=".json,application/json"
        hidden
        aria-label="Build file"
        @change="bringIn"
      />
    </header>
    <PlaceLine class="line" />
    <WhatWasSaved />

    <p v-if="shelf.isPending.value" class="faint" aria-busy="true">Looking along the shelves …</p>
    <div v-else-if="shelf.isError.value" class="blank">
      <h2>The workshop does not answer</h2>
      <p class="faint">Start it again where it runs; nothing that was recorded is lost.</p>
      <v-btn @click="shelf.refetch()">Try again</v-btn>
    </div>
    <div v-else-if="!builds.length" class="blank">
      <h2>{{ away ? 'Nothing is put away' : 'The shelves are empty' }}</h2>
      <p v-if="!away" class="faint">
        Begin a build (key B): a name, what it is for, how it is laid out; then its span and chord
        on the Plan, and its parts, a line each. Or practise on a made-up bench first.
      </p>
    </div>
    <ul v-else class="shelves">
      <li v-for="build in builds" :key="build.id">
        <BuildTag
          :build="build"
          :across="across"
          @shelve="shelve(build)"
          @copy="again(build, 'copy')"
          @next="again(build, 'next-version')"
        />
      </li>
    </ul>
    <v-verb v-if="putAway || away" class="small faint" @click="away = !away">
      {{ away ? 'back to the shelves' : `${putAway} put away` }}
    </v-verb>
    <DoorSheet v-if="isLettingIn" v-model="isLettingIn" />
    <BeginBuild v-if="hasBegun" v-model="beginning" @begun="begun" />
  </div>
</template>

<style scoped>
.shed {
  padding: 20px 28px;
}

header {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px 14px;
  margin-bottom: 18px;
}

.line {
  padding: 0 0 4px;
  margin-bottom: 14px;
}

.space {
  flex: 1;
}

.shelves {
  list-style: none;
  padding: 0;
  margin: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(320px, 1fr));
  gap: 0 0;
}

.blank {
  display: grid;
  gap: 10px;
  justify-items: start;
  padding: 32px 0;
}

@media (max-width: 700px) {
  .shed {
    padding: 14px;
  }

  .shelves {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
