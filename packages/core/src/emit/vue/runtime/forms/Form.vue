<script setup lang="ts">
import { provide, reactive, ref, useId } from 'vue';
import {
  type Field,
  fieldsOf,
  isToSend,
  problemsOf,
  refusedBy,
  tie,
  type Values,
  valuesOf,
  WHOLE,
} from './check';
import Leaving from './Leaving.vue';
import { messages } from './messages';
import { useLeaving } from './useLeaving';
import './forms.css';

/** Is called with what it is filled in with, once that is right. What it refuses by an error is said in the form. */
const { onSend, asks } = defineProps<{
  onSend?: (values: Values) => void | Promise<void>;
  /** Whether it asks before one leaves with something filled in and not sent. */
  asks?: boolean;
}>();

const form = useId();
const problems = reactive<Values>({});
const isSending = ref(false);
let isUnsent = false;
const leaving = useLeaving(() => asks && isUnsent);
provide(messages, { form, problems });

const check = (fields: Field[]) => {
  const found = problemsOf(fields);
  tie(fields, found, form);
  Object.assign(problems, found);
  return found;
};
const handleBlur = ({ currentTarget, target, relatedTarget }: FocusEvent) => {
  if (isToSend(relatedTarget)) return;
  check(fieldsOf(currentTarget as HTMLFormElement).filter((field) => field === target));
};
const handleInput = ({ currentTarget, target }: Event) => {
  isUnsent = true;
  const fields = fieldsOf(currentTarget as HTMLFormElement);
  check(fields.filter((field) => field === target && problems[field.name]));
};
const handleSubmit = async ({ currentTarget }: Event) => {
  if (isSending.value) return;
  const element = currentTarget as HTMLFormElement;
  const fields = fieldsOf(element);
  const found = check(fields);
  const wrong = fields.find(({ name }) => found[name]);
  if (wrong) return wrong.focus();
  isSending.value = true;
  problems[WHOLE] = '';
  // What sending leads to is no leaving.
  isUnsent = false;
  try {
    await onSend?.(valuesOf(element));
    element.reset();
  } catch (error) {
    isUnsent = true;
    const refused = refusedBy(error, fields);
    tie(fields, refused, form);
    Object.assign(problems, refused);
    fields.find(({ name }) => refused[name])?.focus();
  }
  isSending.value = false;
};
</script>

<template>
  <form
    novalidate
    :aria-busy="isSending || undefined"
    @focusout="handleBlur"
    @input="handleInput"
    @submit.prevent="handleSubmit"
  >
    <slot />
    <Leaving v-if="leaving" @answer="leaving" />
    <span v-if="problems[WHOLE]" role="alert" data-field-message="">{{ problems[WHOLE] }}</span>
  </form>
</template>
