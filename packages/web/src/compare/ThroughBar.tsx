import type { ReactNode } from 'react';
import styled from 'styled-components';
import { color } from '../theme/theme';
import { Button } from '../ui/controls';
import type { Going } from './use_compared';

const Line = styled.div`
  display: flex;
  align-items: center;
  gap: 12px;
  p {
    color: ${color.ink2};
  }
  progress {
    width: 180px;
    accent-color: ${color.lake};
  }
`;

/** Begins something that goes through all screens; while it goes, how far it is, and a way to stop it. */
export function ThroughBar({
  going,
  begin,
  done,
  onBegin,
  onStop,
  children,
}: {
  going: Going | null;
  /** What the button that begins it says. */
  begin: string;
  /** What was done with as many as it is through with, as `compared`. */
  done: string;
  onBegin: () => void;
  onStop: () => void;
  /** What is said while it does not go. */
  children: ReactNode;
}) {
  return (
    <Line>
      {going ? (
        <>
          <Button onPress={onStop}>Stop</Button>
          <progress value={going.done} max={going.total} aria-label="Progress" />
          <p role="status">
            {going.done} of {going.total} {done}
          </p>
        </>
      ) : (
        <>
          <Button $kind="primary" onPress={onBegin}>
            {begin}
          </Button>
          <p>{children}</p>
        </>
      )}
    </Line>
  );
}
