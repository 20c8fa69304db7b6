<script setup lang="ts">
import { fixed } from '../shared/units'
import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import AskDrive from './AskDrive.vue'
import PlaceTabs from '../shared/PlaceTabs.vue'
import LeftToAdd from './LeftToAdd.vue'
import OneMore from './OneMore.vue'
import RulesOfThumb from './RulesOfThumb.vue'
import TheChoices from './TheChoices.vue'
import TheCurves from './TheCurves.vue'
import TheDrive from './TheDrive.vue'
import TheFlights from './TheFlights.vue'
import TheLadders from './TheLadders.vue'
import TheRatings from './TheRatings.vue'
import TheRuns from './TheRuns.vue'
import WhichPack from './WhichPack.vue'
import { useBuild } from '../shared/useBuild'
import { useDrive } from './useDrive'
import { openPoints } from './usePoints'

const { drive, begin } = useDrive()
const { assessment } = useBuild()
openPoints()

const VIEWS = [
  { name: 'stand', title: 'On the stand' },
  { name: 'choice', title: 'Which pack, which motor' },
  { name: 'minutes', title: 'Minutes' },
  { name: 'drive', title: 'The drive' },
] as const

const route = useRoute()
const router = useRouter()
const here = computed(
  () => VIEWS.find((each) => each.name === route.query['on'])?.name ?? VIEWS[0].name,
)

/** What a drive is begun with is a guess: the next thing is to put it right. */
async function list() {
  if (await begin()) void router.replace({ query: { on: 'drive' } })
}
const fitted = computed(() => {
  const all = drive.value
  if (!all) return ''
  const motors = all.motors > 1 ? `${all.motors} motors` : 'motor'
  const propeller = all.propellers[0] ? ` · propeller ${all.propellers[0].name}` : ''
  const kv = all.motor.kv === null ? ', Kv not said' : ` ${fixed(all.motor.kv, 0)} rpm/V`
  return `${motors}${kv}${propeller}`
})
</script>

<template>
  <div v-if="!drive" class="begin">
    <h1>Power</h1>
    <p v-if="assessment?.carries.thrown">
      It is thrown by hand: it has no motor, and nothing is to be reckoned here. Where one goes in
      after all, say what the drive is.
    </p>
    <p v-else>
      What does each pack give: how much thrust, how many amps, how many minutes, and how much
      weight is left to add? Say what the drive is; it is a guess until it ran on a stand, and says
      so.
    </p>
    <v-btn :class="{ 'press--main': !assessment?.carries.thrown }" @click="list">
      List the drive
    </v-btn>
  </div>
  <div v-else class="place">
    <PlaceTabs class="tabs" :views="VIEWS" :here="here" label="In Power">
      <span class="faint small">{{ fitted }}</span>
    </PlaceTabs>
    <div class="power" :class="here">
      <div v-if="here === 'stand'" class="stand"><TheRuns /></div>
      <div v-if="here === 'drive'" class="stand"><TheDrive /></div>
      <div class="middle">
        <template v-if="here === 'stand'">
          <TheCurves />
          <WhichPack />
          <AskDrive />
        </template>
        <TheChoices v-else-if="here === 'choice'" />
        <TheFlights v-else-if="here === 'minutes'" />
        <TheRatings v-else />
      </div>
      <div class="aside">
        <LeftToAdd />
        <TheLadders />
        <OneMore />
        <RulesOfThumb />
      </div>
    </div>
  </div>
</template>

<style scoped>
.begin {
  max-width: 560px;
  padding: 24px 20px;
  display: grid;
  gap: 14px;
  justify-items: start;
}

.tabs {
  padding: 8px 18px 0;
}

.tabs span {
  margin-left: auto;
}

.power {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 268px;
}

.power.stand,
.power.drive {
  grid-template-columns: 322px minmax(0, 1fr) 268px;
  border: 0;
  padding: 0;
  background: none;
}

.power > div {
  padding: 14px 18px 48px;
  display: grid;
  gap: 20px;
  align-content: start;
  min-width: 0;
}

.power > div > * {
  min-width: 0;
}

.power > .stand {
  border-right: 1px solid var(--ink);
  background: var(--paper);
}

.aside {
  border-left: 1px solid var(--ink);
  background: var(--paper);
}

@media (max-width: 1100px) {
  .power,
  .power.stand,
  .power.drive {
    grid-template-columns: minmax(0, 1fr);
  }

  .power > .stand {
    border-right: 0;
    border-bottom: 1px solid var(--ink);
  }

  .aside {
    border-left: 0;
    border-top: 1px solid var(--ink);
  }
}

@media (max-width: 600px) {
  .tabs span {
    margin-left: 0;
    flex-basis: 100%;
  }
}
</style>
