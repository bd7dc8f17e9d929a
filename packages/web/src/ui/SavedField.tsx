import { Field } from './controls';
import { useTyped } from './use_typed';

/** A text that counts when it is left or entered. */
export function SavedField({
  label,
  value,
  hint,
  problemOf,
  isCheckedAlways,
  isCode,
  isLabelHidden,
  placeholder,
  onSave,
}: {
  label: string;
  value: string;
  hint?: string;
  problemOf?: (text: string) => string | null;
  /** What is wrong with the value itself is said, too. */
  isCheckedAlways?: boolean;
  isCode?: boolean;
  /** Said, and not shown. */
  isLabelHidden?: boolean;
  placeholder?: string;
  onSave: (text: string) => void;
}) {
  const { text, other, type, end } = useTyped(value);
  const problem = text === value && !isCheckedAlways ? null : (problemOf?.(text) ?? null);
  const save = (): void => {
    if (problem && text !== value) return;
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
      isLabelHidden={isLabelHidden}
      placeholder={placeholder}
      problem={problem}
      other={other}
      onTakeOther={end}
      onBlur={save}
      onKeyDown={(event) => event.key === 'Enter' && save()}
    />
  );
}
