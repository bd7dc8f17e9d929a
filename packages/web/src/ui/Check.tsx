import styled from 'styled-components';
import { color } from '../theme/theme';

const Ticked = styled.label`
  display: flex;
  align-items: center;
  gap: 6px;
  font-size: 12.5px;
  cursor: pointer;
  input {
    accent-color: ${color.lake};
  }
`;

/** Something that is so or not, with a box to tick. */
export function Check({
  label,
  isOn,
  isDisabled,
  onChange,
}: {
  label: string;
  isOn: boolean;
  isDisabled?: boolean;
  onChange: (isOn: boolean) => void;
}) {
  return (
    <Ticked>
      <input
        type="checkbox"
        checked={isOn}
        disabled={isDisabled}
        onChange={(event) => onChange(event.target.checked)}
      />
      {label}
    </Ticked>
  );
}
