<script setup lang="ts">
import { inject } from 'vue';
import { messageId } from './check';
import { messages } from './messages';

const { of } = defineProps<{ of: string }>();
const around = inject(messages, { form: '', problems: {} });
</script>

<template>
  <span
    v-if="around.problems[of]"
    :id="messageId(around.form, of)"
    role="alert"
    data-field-message
    >{{ around.problems[of] }}</span
  >
</template>
