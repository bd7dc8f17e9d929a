import { onUnmounted, type ShallowRef, shallowRef } from 'vue';
import { forgetGone, onOpened, type Opened, opened } from './opened';

/** What is open now. What a component has shown is forgotten with it. */
export function useOpened(): ShallowRef<Opened> {
  const now = shallowRef(opened());
  const end = onOpened(() => (now.value = opened()));
  onUnmounted(() => {
    end();
    forgetGone();
  });
  return now;
}
