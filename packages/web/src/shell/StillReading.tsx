import { Link, useLocation } from 'react-router';
import styled from 'styled-components';
import { useIntake } from '../intake/intake_run';
import { useProject } from '../project/context';
import { color } from '../theme/theme';
import { Empty } from '../ui/Empty';

const Bar = styled.div`
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 6px 18px;
  background: ${color.lakeTint};
  border-bottom: 1px solid ${color.rule};
  progress {
    width: 160px;
    height: 8px;
    accent-color: ${color.lake};
  }
`;

/** Away from Intake, how far the screens are that are being read there. */
export function ReadingBar() {
  const { session, base } = useProject();
  const { running, progress } = useIntake(session);
  const { pathname } = useLocation();
  if (!running || !progress || pathname === `${base}/intake`) return null;
  const { step, done, total } = progress;
  return (
    <Bar role="status">
      {step === 'reading'
        ? `Reading screens: ${done} of ${total}.`
        : 'All screens are read, and being taken in.'}
      <progress
        aria-label="Screens read"
        {...(step === 'reading' ? { value: done, max: Math.max(total, 1) } : {})}
      />
      <Link to={`${base}/intake`}>To Intake</Link>
    </Bar>
  );
}

/** In place of a station that needs all screens. */
export function StillReading({ station }: { station: string }) {
  const { base } = useProject();
  return (
    <Empty
      title="Screens are still being read"
      text={`${station} works with all of them, and opens as soon as they are in. Begin meanwhile with those that are there.`}
    >
      <Link to={`${base}/screens`}>To the screens</Link>
    </Empty>
  );
}
