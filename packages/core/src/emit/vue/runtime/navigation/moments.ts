import { onMounted, onUnmounted } from 'vue';

/** Does something some milliseconds after the screen was shown. */
export function useAfter(ms: number, act: () => void): void {
  let timer: ReturnType<typeof setTimeout>;
  onMounted(() => (timer = setTimeout(act, ms)));
  onUnmounted(() => clearTimeout(timer));
}

/** Does something when a key is pressed that no field takes. */
export function useKey(key: string, act: () => void): void {
  const onKey = (event: KeyboardEvent): void => {
    const isTyped =
      event.target instanceof Element && event.target.closest('input, textarea, select');
    if (event.key !== key || event.defaultPrevented || (isTyped && key.length === 1)) return;
    event.preventDefault();
    act();
  };
  onMounted(() => window.addEventListener('keydown', onKey));
  onUnmounted(() => window.removeEventListener('keydown', onKey));
}
