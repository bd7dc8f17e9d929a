import { useState } from 'react';
import { Field } from './controls';

/** A text that counts when it is left or entered. */
export function SavedField({
  label,
  value,
  hint,
  problemOf,
  isCode,
  placeholder,
  onSave,
}: {
  label: string;
  value: string;
  hint?: string;
  problemOf?: (text: string) => string | null;
  isCode?: boolean;
  placeholder?: string;
  onSave: (text: string) => void;
}) {
  const [text, setText] = useState(value);
  const [last, setLast] = useState(value);
  if (last !== value) {
    setLast(value);
    setText(value);
  }
  const problem = text === value ? null : (problemOf?.(text) ?? null);
  const save = (): void => {
    if (text !== value && !problem) onSave(text);
  };
  return (
    <Field
      label={label}
      value={text}
      onChange={setText}
      hint={hint}
      isCode={isCode}
      placeholder={placeholder}
      problem={problem}
      onBlur={save}
      onKeyDown={(event) => event.key === 'Enter' && save()}
    />
  );
}
