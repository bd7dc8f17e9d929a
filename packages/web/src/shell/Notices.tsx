import styled from 'styled-components';
import { useProject, useStanding } from '../project/context';
import type { WaitingStep } from '../project/shelf';
import { color } from '../theme/theme';
import { Button } from '../ui/controls';
import { PastBar } from './PastBar';
import { ReadingBar } from './StillReading';

const Stack = styled.div`
  grid-row: 2;
`;

const Notice = styled.div<{ $isLoss: boolean }>`
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 6px 18px;
  background: ${({ $isLoss }) => ($isLoss ? color.redTint : color.side)};
  border-bottom: 1px solid ${({ $isLoss }) => ($isLoss ? color.red : color.rule)};
  span {
    margin-right: auto;
    max-height: 60px;
    overflow: auto;
  }
  button {
    flex: none;
  }
`;

/** What somebody should know of the steps that they made, and what can be done about it. */
export function Notices() {
  const { session, past } = useProject();
  const { notice, refused, leftBehind } = useStanding();
  return (
    <Stack>
      {past !== null && <PastBar past={past} />}
      <ReadingBar />
      {leftBehind.length > 0 && (
        <Notice $isLoss role="alert">
          <span>
            {leftBehind.length === 1 ? 'A step was' : `${leftBehind.length} steps were`} made here and not
            saved before the window ended: {named(leftBehind)}.
          </span>
          <Button onPress={() => session.takeAgain(leftBehind)}>
            {leftBehind.length === 1 ? 'Save it' : 'Save them'}
          </Button>
          <Button onPress={() => session.letGo(leftBehind)}>Let go</Button>
        </Notice>
      )}
      {notice && (
        <Notice $isLoss={refused.length > 0} role="alert">
          <span>{notice}</span>
          {refused.length > 0 && (
            <Button onPress={() => session.takeAgain(refused)}>Make mine all the same</Button>
          )}
          <Button onPress={() => session.dismiss()}>Understood</Button>
        </Notice>
      )}
    </Stack>
  );
}

const SHOWN = 4;

const named = (steps: readonly WaitingStep[]): string =>
  steps
    .slice(0, SHOWN)
    .map((step) => `“${step.label}”`)
    .join(', ') + (steps.length > SHOWN ? ` and ${steps.length - SHOWN} more` : '');
