/**
 * What is done around something that people do on a page.
 *
 * @typedef {object} Hook
 * @property {() => void | boolean | Promise<void | boolean>} [before] is called first; what answers false, at once or in the
 *   end, keeps the rest from being done
 * @property {() => void | Promise<void>} [instead] is done in place of what the design says
 * @property {() => void | Promise<void>} [after] is called when it is done
 */

/**
 * What an action does, with what is hooked in around it; without a hook the action itself.
 *
 * @param {Hook | undefined} hook
 * @param {() => void | Promise<void>} act
 * @returns {() => void | Promise<void>}
 */
export function hooked(hook, act) {
  if (!hook) return act;
  const { before, instead, after } = hook;
  return () => {
    const answer = before?.();
    if (answer instanceof Promise) return answer.then((told) => (told === false ? undefined : rest()));
    return answer === false ? undefined : rest();

    function rest() {
      const done = (instead ?? act)();
      return done instanceof Promise ? done.then(() => after?.()) : after?.();
    }
  };
}
