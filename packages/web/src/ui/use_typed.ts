import { useState } from 'react';

/** A text that is being typed over a value that others may change meanwhile. */
export interface Typed {
  /** What the field shows. */
  readonly text: string;
  /** What the value has become while somebody typed; null while it is what the typing began with. */
  readonly other: string | null;
  readonly type: (text: string) => void;
  /** Shows the value again, as when it was taken or let go. */
  readonly end: () => void;
}

/** Half-typed text stays, whatever happens to the value: what that has become is offered instead. */
export function useTyped(value: string): Typed {
  const [typed, setTyped] = useState<{ readonly text: string; readonly from: string } | null>(null);
  return {
    text: typed?.text ?? value,
    other: typed && typed.from !== value && typed.text !== value ? value : null,
    type: (text) => setTyped({ text, from: typed?.from ?? value }),
    end: () => setTyped(null),
  };
}
