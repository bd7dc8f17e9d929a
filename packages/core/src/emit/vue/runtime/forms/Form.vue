<script setup lang="ts">
import { provide, reactive, useId } from 'vue';
import { type Field, fieldsOf, isSending, problemsOf, tie, type Values, valuesOf } from './check';
import { messages } from './messages';
import './forms.css';

const emit = defineEmits<{ send: [values: Values] }>();

const form = useId();
const problems = reactive<Values>({});
provide(messages, { form, problems });

const check = (fields: Field[]) => {
  const found = problemsOf(fields);
  tie(fields, found, form);
  Object.assign(problems, found);
  return found;
};
const handleBlur = ({ currentTarget, target, relatedTarget }: FocusEvent) => {
  if (isSending(relatedTarget)) return;
  check(fieldsOf(currentTarget as HTMLFormElement).filter((field) => field === target));
};
const handleInput = ({ currentTarget, target }: Event) => {
  const fields = fieldsOf(currentTarget as HTMLFormElement);
  check(fields.filter((field) => field === target && problems[field.name]));
};
const handleSubmit = ({ currentTarget }: Event) => {
  const element = currentTarget as HTMLFormElement;
  const fields = fieldsOf(element);
  const found = check(fields);
  const wrong = fields.find(({ name }) => found[name]);
  if (wrong) wrong.focus();
  else {
    emit('send', valuesOf(element));
    element.reset();
  }
};
</script>

<template>
  <form novalidate @focusout="handleBlur" @input="handleInput" @submit.prevent="handleSubmit">
    <slot />
  </form>
</template>
