<script setup lang="ts">
import PointForm from './PointForm.vue'
import RunList from './RunList.vue'
import TheStand from './TheStand.vue'
</script>

<template>
  <section aria-label="On the stand">
    <h2>On the stand</h2>
    <TheStand />
    <PointForm />
    <p class="warns small" role="note">
      Held down, eyes protected, nobody in line with the disc. Pack off before you touch it; never a
      puffed one.
    </p>
    <RunList />
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 12px;
}
</style>
