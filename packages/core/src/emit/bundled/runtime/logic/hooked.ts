type Answer = void | boolean | Promise<void | boolean>;

/** What is done around something that people do on a screen. */
export interface Hook<Given extends unknown[] = []> {
  /** Is called first. What answers false, at once or in the end, keeps the rest from being done. */
  before?: (...given: Given) => Answer;
  /** Is done in place of what the design says. */
  instead?: (...given: Given) => void | Promise<void>;
  /** Is called when it is done. */
  after?: (...given: Given) => void | Promise<void>;
}

/** What an action does, with what is hooked in around it; without a hook the action itself. */
export function hooked<Given extends unknown[]>(
  hook: Hook<Given> | undefined,
  act: (...given: Given) => void | Promise<void>,
): (...given: Given) => void | Promise<void> {
  if (!hook) return act;
  const { before, instead, after } = hook;
  return (...given) => {
    const answer = before?.(...given);
    if (answer instanceof Promise)
      return answer.then((told) => (told === false ? undefined : rest()));
    return answer === false ? undefined : rest();

    function rest(): void | Promise<void> {
      const done = (instead ?? act)(...given);
      return done instanceof Promise ? done.then(() => after?.(...given)) : after?.(...given);
    }
  };
}

/** What a link does around going where it leads, given what goes there; nothing without a hook. */
export const around = (
  hook: Hook | undefined,
): ((go: () => void) => void | Promise<void>) | undefined => hook && ((go) => hooked(hook, go)());
