<script setup lang="ts">
import { answered, api, type Build, type Opened } from '../api/client'
import QuantityCell from '../shared/QuantityCell.vue'
import { useUnits } from '../shared/units'
import { useBuild } from '../shared/useBuild'

/** The thrust that the plane is said to have, and where its line lies: two rows of the targets. */
const { id, build, assessment, change, send } = useBuild()
const { units } = useUnits()

function thrust(thrust_gf: number | null) {
  void send(
    (header) =>
      answered<Opened>(
        api.PUT('/api/v1/builds/{build_id}/thrust', {
          params: { path: { build_id: id.value }, header },
          body: { thrust_gf },
        }),
      ),
    () => 'Static thrust',
  )
}

type Thrust = NonNullable<Build['thrust']>
const line = (patch: Partial<Pick<Thrust, 'line_z_mm' | 'line_y_mm' | 'doubt_gf'>>) =>
  void change(({ thrust: old }) => ({ thrust: old && { ...old, ...patch } }))
</script>

<template>
  <tr>
    <th scope="row">Static thrust</th>
    <td>
      <QuantityCell
        :value="build?.thrust?.thrust_gf ?? null"
        kind="thrust"
        label="Static thrust"
        :unit="units.thrust.name"
        :base="units.thrust.base"
        optional
        @kept="thrust"
      />
    </td>
    <td class="doubt">
      ±
      <QuantityCell
        :value="build?.thrust?.doubt_gf ?? null"
        kind="thrust"
        label="Doubt of the thrust, one sigma"
        :unit="units.thrust.name"
        :base="units.thrust.base"
        optional
        @kept="(doubt_gf) => line({ doubt_gf })"
      />
    </td>
    <td class="unit">{{ units.thrust.name }}</td>
    <td class="from faint">
      {{ build?.thrust?.source || 'full throttle; doubt is 10 % unless given'
      }}<template v-if="assessment?.power?.loadouts.length"
        >. A loadout with a pack of the drive has its own, from Power, of which this is one
        reading</template
      >
    </td>
  </tr>
  <tr v-if="build?.thrust">
    <th scope="row">Thrust line</th>
    <td>
      <QuantityCell
        :value="build.thrust.line_z_mm"
        kind="station"
        label="Height of the thrust line"
        :unit="units.length.name"
        :base="units.length.base"
        optional
        @kept="(line_z_mm) => line({ line_z_mm })"
      />
    </td>
    <td>
      <QuantityCell
        :value="build.thrust.line_y_mm"
        kind="station"
        label="Side of the thrust line"
        :unit="units.length.name"
        :base="units.length.base"
        optional
        @kept="(line_y_mm) => line({ line_y_mm })"
      />
    </td>
    <td class="unit">{{ units.length.name }} up, right</td>
    <td class="from faint">
      above the datum, and to starboard; tells what throttle does to pitch and swing
    </td>
  </tr>
</template>

<style scoped>
.doubt {
  white-space: nowrap;
}

.doubt :deep(.cell) {
  width: calc(100% - 18px);
}
</style>
