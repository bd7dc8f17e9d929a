import styled from 'styled-components';
import { color } from '../theme/theme';

const Label = styled.label`
  display: flex;
  gap: 8px;
  align-items: center;
  color: ${color.ink2};
  input {
    accent-color: ${color.lake};
    width: 110px;
  }
`;

interface SizeSliderProps {
  /** The least and the most that screens are shown as, as parts of their size. */
  readonly scales: { readonly min: number; readonly max: number };
  readonly value: number;
  readonly onChange: (scale: number) => void;
}

/** How large screens are shown. */
export function SizeSlider({ scales, value, onChange }: SizeSliderProps) {
  return (
    <Label>
      Size
      <input
        type="range"
        min={scales.min}
        max={scales.max}
        step={0.01}
        value={value}
        onChange={(event) => onChange(Number(event.target.value))}
      />
    </Label>
  );
}
