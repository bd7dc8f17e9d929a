<script setup lang="ts">
import { onBeforeUnmount, onMounted, useTemplateRef } from 'vue';
import type { Arrival } from '../navigation/arrival';
import type { OverlayDefinition } from './definition';
import './overlays.css';
import { itemsOf, placeBeside } from './placing';

/** Something over the screen: it takes the focus, keeps it where it must, and gives it back. */
const { name, definition, opener, arrival } = defineProps<{
  name: string;
  definition: OverlayDefinition;
  /** What it was opened with; focus returns there. */
  opener: Element | null;
  arrival?: Arrival;
}>();
const emit = defineEmits<{ close: [] }>();
const { kind, modal, closesBy, ms } = definition;
const isDialog = kind === 'dialog' || kind === 'drawer' || kind === 'sheet';
const role = kind === 'toast' ? 'status' : kind === 'menu' ? 'menu' : 'dialog';
const played = arrival && arrival.kind !== 'none' ? arrival : null;
const own = useTemplateRef<HTMLElement>('own');
const before = opener ?? document.activeElement;

const onPress = (event: PointerEvent): void => {
  const target = event.target as Node;
  const { left, right, top, bottom } = own.value!.getBoundingClientRect();
  const { clientX: x, clientY: y } = event;
  const isInside = x >= left && x <= right && y >= top && y <= bottom;
  // The shade behind a dialog is part of the dialog.
  if (!own.value!.contains(target) || (target === own.value && !isInside)) emit('close');
};
const onKeydown = (event: KeyboardEvent): void => {
  if (event.key === 'Escape') {
    event.stopPropagation();
    if (closesBy.escape) emit('close');
  }
  const step = { ArrowDown: 1, ArrowUp: -1 }[event.key];
  if (kind !== 'menu' || !step) return;
  event.preventDefault();
  const items = itemsOf(own.value!);
  const at = items.indexOf(document.activeElement as HTMLElement);
  items[(at + step + items.length) % items.length]?.focus();
};

const timers: ReturnType<typeof setTimeout>[] = [];
onMounted(() => {
  const element = own.value!;
  if (element instanceof HTMLDialogElement) {
    if (modal) element.showModal();
    else element.show();
  } else {
    element.showPopover();
    if (kind !== 'toast') placeBeside(element, before);
    if (kind === 'menu') itemsOf(element)[0]?.focus();
  }
  if (ms) timers.push(setTimeout(() => emit('close'), ms));
  // The press that opened it is not one outside.
  if (closesBy.outside)
    timers.push(setTimeout(() => document.addEventListener('pointerdown', onPress)));
});
onBeforeUnmount(() => {
  timers.forEach(clearTimeout);
  document.removeEventListener('pointerdown', onPress);
  if (own.value instanceof HTMLDialogElement) own.value.close();
  if (kind !== 'toast' && before instanceof HTMLElement) before.focus();
});
</script>

<template>
  <!-- Escape reaches a modal dialog as cancelling; whether it closes is decided above. -->
  <component
    :is="isDialog ? 'dialog' : 'div'"
    :id="`overlay-${name}`"
    ref="own"
    class="overlay"
    :role="isDialog ? undefined : role"
    :popover="isDialog ? undefined : 'manual'"
    :data-kind="kind"
    :data-side="definition.side"
    :data-arrival="played?.kind"
    :style="played ? { animationDuration: `${played.ms}ms` } : undefined"
    :aria-label="definition.label"
    @keydown="onKeydown"
    @cancel.prevent
  >
    <component :is="definition.Content" />
  </component>
</template>
