<script setup lang="ts">
import { computed } from 'vue';
import { RouterLink, useRoute } from 'vue-router';
import type { Arrival } from './arrival';
import { fill } from './fill';
import { announce } from './history';

/** A link to another screen. What its address leaves open is that of the present one. */
const { to, arrival = { kind: 'none' } } = defineProps<{ to: string; arrival?: Arrival }>();
const route = useRoute();
const address = computed(() => fill(to, route.params));
</script>

<template>
  <RouterLink :to="address" @click.capture="announce(arrival, $event.currentTarget)">
    <slot />
  </RouterLink>
</template>
