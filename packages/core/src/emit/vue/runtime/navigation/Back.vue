<script setup lang="ts">
import type { Arrival } from './arrival';
import { useGo } from './useGo';

/** A button that goes one step back. */
const { fallback, arrival } = defineProps<{ fallback: string; arrival?: Arrival }>();
const go = useGo();
</script>

<template>
  <button type="button" @click="go.back(fallback, arrival)"><slot /></button>
</template>
