import styled from 'styled-components';
import { font } from '../theme/theme';
import { fieldBox, Label } from '../ui/controls';

const Source = styled.textarea`
  ${fieldBox}
  min-height: 190px;
  resize: vertical;
  font: 12px/1.5 ${font.code};
`;

/** A text that somebody pastes, or opens from a file. */
export function PastedText({
  id,
  label,
  accept,
  value,
  onChange,
}: {
  /** Of the field; what is said of it stands at the same with `-says`. */
  id: string;
  label: string;
  /** What the names of files end in. */
  accept: string;
  value: string;
  onChange: (text: string) => void;
}) {
  return (
    <div>
      <Label htmlFor={id}>{label}</Label>
      <Source
        id={id}
        autoFocus
        spellCheck={false}
        value={value}
        onChange={(event) => onChange(event.target.value)}
        aria-describedby={`${id}-says`}
      />
      <input
        type="file"
        aria-label="Open a file"
        accept={accept}
        onChange={(event) => void event.target.files?.[0]?.text().then(onChange)}
      />
    </div>
  );
}
