<script setup lang="ts">
import { computed } from 'vue';
import { RouterLink, useRoute } from 'vue-router';
import type { Arrival } from './arrival';
import { fill } from './fill';
import { announce } from './history';
import { useGo } from './useGo';

/** A link to another screen. What its address leaves open is that of the present one. */
const {
  to,
  arrival = { kind: 'none' },
  around,
} = defineProps<{
  to: string;
  arrival?: Arrival;
  /** What is done when it is pressed, given what goes there. */
  around?: (go: () => void) => void | Promise<void>;
}>();
const route = useRoute();
const go = useGo();
const address = computed(() => fill(to, route.params));

const handleClick = (event: MouseEvent) => {
  const isPlain = ![event.button, event.metaKey, event.ctrlKey, event.shiftKey, event.altKey].some(
    Boolean,
  );
  if (around && isPlain && !event.defaultPrevented) {
    event.preventDefault();
    void around(() => go(to, arrival));
  } else announce(arrival, event.currentTarget as Element);
};
</script>

<template>
  <RouterLink :to="address" @click.capture="handleClick">
    <slot />
  </RouterLink>
</template>
