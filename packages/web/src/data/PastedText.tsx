import styled from 'styled-components';
import { font } from '../theme/theme';
import { fieldBox, Label } from '../ui/controls';
import { FileButton } from '../ui/FileButton';

const Source = styled.textarea`
  ${fieldBox}
  min-height: 190px;
  resize: vertical;
  font: 12px/1.5 ${font.code};
`;

/** Its word stands under the field's edge, though a button has room around it. */
const Beside = styled.div`
  margin-inline-start: -12px;
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
      <Beside>
        <FileButton
          label="A file with it"
          accept={accept}
          kind="quiet"
          onChoose={(file) => void file.text().then(onChange)}
        >
          Or open a file …
        </FileButton>
      </Beside>
    </div>
  );
}
