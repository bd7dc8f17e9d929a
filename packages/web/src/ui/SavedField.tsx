import { Field } from './controls';
import { useTyped } from './use_typed';

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
  const { text, other, type, end } = useTyped(value);
  const problem = text === value ? null : (problemOf?.(text) ?? null);
  const save = (): void => {
    if (problem) return;
    end();
    if (text !== value) onSave(text);
  };
  return (
    <Field
      label={label}
      value={text}
      onChange={type}
      hint={hint}
      isCode={isCode}
      placeholder={placeholder}
      problem={problem}
      other={other}
      onTakeOther={end}
      onBlur={save}
      onKeyDown={(event) => event.key === 'Enter' && save()}
    />
  );
}
