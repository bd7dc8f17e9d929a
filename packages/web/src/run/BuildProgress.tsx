import styled from 'styled-components';
import { color } from '../theme/theme';

const Building = styled.p`
  position: absolute;
  /* Over the sheet, which is white until the app is there. */
  z-index: 1;
  inset: 0;
  margin: auto;
  width: max-content;
  height: max-content;
  display: grid;
  gap: 8px;
  padding: 10px 16px;
  color: ${color.ink2};
  background: ${color.sheet};
  border: 1px solid ${color.rule};
  font-variant-numeric: tabular-nums;
  animation: appear 0s 0.3s backwards;
  @keyframes appear {
    from {
      visibility: hidden;
    }
  }
`;

/** Says over the stage that the app is being built, and how far that is where it is known. */
export function BuildProgress({ building }: { building: { done: number; total: number } | null }) {
  return (
    <Building role="status">
      {building?.total
        ? `Writing the app: ${building.done} of ${building.total} screens`
        : 'Building the app …'}
      {building && <progress value={building.done} max={building.total} aria-hidden />}
    </Building>
  );
}
