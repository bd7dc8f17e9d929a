<script setup lang="ts" generic="Field extends string">
/** Sorts a list by a field, and shows by an arrow how it is sorted. */
defineProps<{
  list: {
    sortBy: (field: Field) => void;
    arrowOf: (field: Field) => string;
  };
  field: Field;
}>();
</script>

<template>
  <button type="button" @click="list.sortBy(field)">
    <slot /><span aria-hidden="true">{{ list.arrowOf(field) }}</span>
  </button>
</template>
