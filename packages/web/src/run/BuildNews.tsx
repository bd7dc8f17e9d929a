import { useEffect, useRef } from 'react';
import styled from 'styled-components';
import { useProject, useStanding } from '../project/context';
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

/**
 * Says over the stage how far the building of the app is, and tells the app when it was built anew: it takes that over where it is.
 * It is drawn by itself, since news of builds come often.
 */
export function BuildNews({ isThere, tell }: { isThere: boolean; tell: (message: object) => void }) {
  const { session } = useProject();
  const { building } = useStanding();
  const tells = useRef(tell);
  tells.current = tell;
  useEffect(() => {
    let known = 0;
    let ahead = 0;
    // Told at once, and not when the window has been drawn with it.
    const onNews = (): void => {
      const { built, saving } = session.getState();
      // What a step makes of the app is on its way to it as soon as it is built.
      const expected = saving === 'saving' ? session.expected : 0;
      if (expected > ahead) tells.current({ tovel: 'ahead', value: (ahead = expected) });
      if (built === known) return;
      known = built;
      tells.current({ tovel: 'refresh' });
    };
    onNews();
    return session.subscribe(onNews);
  }, [session]);
  if (isThere && !building) return null;
  return (
    <Building role="status">
      {building?.total
        ? `Writing the app: ${building.done} of ${building.total} screens`
        : 'Building the app …'}
      {building && <progress value={building.done} max={building.total} aria-hidden />}
    </Building>
  );
}
