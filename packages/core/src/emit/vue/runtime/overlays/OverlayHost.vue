<script setup lang="ts">
import { computed, watch } from 'vue';
import { useRoute } from 'vue-router';
import Overlay from './Overlay.vue';
import { overlays } from './overlays';
import { opened, PARAMETER, useOverlays } from './useOverlays';

const route = useRoute();
const { close } = useOverlays();

// Another screen closes what was open over the last one; a message may stay.
watch(
  () => route.path,
  () => (opened.value = opened.value.filter(({ name }) => overlays[name].kind === 'toast')),
);

const isOver = (name: string): boolean => {
  const { over } = overlays[name];
  return !over || over.includes(route.matched.at(-1)?.path ?? '');
};
const inAddress = computed(() => {
  const name = route.query[PARAMETER];
  return typeof name === 'string' && Object.hasOwn(overlays, name) && isOver(name) ? name : null;
});
const shown = computed(() => opened.value.filter(({ name }) => isOver(name)));
const closeOne = (id: number): void => {
  opened.value = opened.value.filter((other) => other.id !== id);
};
</script>

<template>
  <Overlay
    v-if="inAddress"
    :key="inAddress"
    :name="inAddress"
    :definition="overlays[inAddress]"
    :opener="null"
    @close="close"
  />
  <Overlay
    v-for="{ id, name, opener, arrival } in shown"
    :key="id"
    :name="name"
    :definition="overlays[name]"
    :opener="opener"
    :arrival="arrival"
    @close="closeOne(id)"
  />
</template>
