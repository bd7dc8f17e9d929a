import type { FormEvent } from 'react';

/** Does something when a form is sent, which then goes nowhere by itself. */
export const submitting =
  (act: () => void) =>
  (event: FormEvent): void => {
    event.preventDefault();
    act();
  };
