<script setup lang="ts">
import { onScopeDispose, useTemplateRef, watchEffect } from 'vue';
import { drawChart, type Drawn, inWords } from './drawChart';

const {
  kind,
  label,
  labels = [],
  values,
} = defineProps<{
  kind: Drawn['kind'];
  /** What it is called. */
  label: string;
  labels?: readonly string[];
  values: readonly string[];
}>();
const canvas = useTemplateRef<HTMLCanvasElement>('canvas');
let end = (): void => {};
watchEffect(
  () => {
    end();
    end = canvas.value ? drawChart(canvas.value, { kind, label, labels, values }) : () => {};
  },
  { flush: 'post' },
);
onScopeDispose(() => end());
</script>

<template>
  <div>
    <div style="position: relative; width: 100%; height: 100%; min-height: 120px">
      <canvas ref="canvas" role="img" :aria-label="inWords({ label, labels, values })"></canvas>
    </div>
  </div>
</template>
