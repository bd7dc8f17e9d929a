import { onScopeDispose, ref, type Ref } from 'vue';
import { useRouter } from 'vue-router';

/**
 * Asks before one leaves a screen on which something is filled in and not sent.
 * @returns how the question is answered, while there is one
 */
export function useLeaving(isUnsent: () => boolean): Ref<((leave: boolean) => void) | null> {
  const answer = ref<((leave: boolean) => void) | null>(null);
  const stay = (event: BeforeUnloadEvent): void => {
    if (isUnsent()) event.preventDefault();
  };
  window.addEventListener('beforeunload', stay);
  const forget = useRouter().beforeEach((to, from) => {
    if (to.path === from.path || !isUnsent()) return true;
    return new Promise<boolean>((resolve) => {
      answer.value = (leave) => {
        answer.value = null;
        resolve(leave);
      };
    });
  });
  onScopeDispose(() => {
    forget();
    window.removeEventListener('beforeunload', stay);
  });
  return answer;
}
