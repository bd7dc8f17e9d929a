<script setup lang="ts">
import { onMounted, ref } from 'vue';

const emit = defineEmits<{ answer: [leave: boolean] }>();
const dialog = ref<HTMLDialogElement | null>(null);
onMounted(() => dialog.value?.showModal());
</script>

<!-- Asks whether what is filled in may be lost. -->
<template>
  <dialog ref="dialog" aria-labelledby="leaving" data-leaving="" @cancel="emit('answer', false)">
    <p id="leaving">What you filled in is not sent yet.</p>
    <button type="button" @click="emit('answer', false)">Stay here</button>
    <button type="button" @click="emit('answer', true)">Leave it</button>
  </dialog>
</template>
