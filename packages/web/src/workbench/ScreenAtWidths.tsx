import { breakpointsOf, counterpartsOf, type Declarations, type Screen, screensByKey } from '@tovel/core';
import { useMemo } from 'react';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { color } from '../theme/theme';
import type { Pointing } from './ElementsListed';
import { Ruler } from './Ruler';
import { WideStage } from './WideStage';

const Middle = styled.section`
  min-height: 0;
  min-width: 0;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
`;

const Three = styled.div`
  min-height: 0;
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  > figure {
    min-height: 0;
    display: grid;
    grid-template-rows: auto minmax(0, 1fr);
  }
  figcaption {
    text-align: center;
    font-size: 12px;
    color: ${color.ink2};
  }
`;

/** The widths, in px, for which a screen was drawn, the smallest first. */
function useDrawnWidths({ key, width }: Screen): readonly number[] {
  const { app, drawn } = useProject();
  return useMemo(() => {
    const others = counterpartsOf(app, screensByKey(drawn)).get(key) ?? [];
    return [...new Set([width, ...others.map((other) => other.screen.width)])].sort((a, b) => a - b);
  }, [app, drawn, key, width]);
}

interface ScreenAtWidthsProps {
  /** As it came in, and as it is. */
  drawn: Screen;
  screen: Screen;
  width: number;
  onWidth: (width: number) => void;
  /** Whether a narrower and a wider window stand beside it. */
  showsThree: boolean;
  pointing: Pointing;
  /** What the chosen element says of the state that is looked at. */
  inState: Declarations | undefined;
  onPressedTwice: () => void;
}

/** The screen in a window of a width, or of three. */
export function ScreenAtWidths({
  drawn,
  screen,
  width,
  onWidth,
  showsThree,
  pointing,
  inState,
  onPressedTwice,
}: ScreenAtWidthsProps) {
  const widths = useDrawnWidths(drawn);
  const stage = (at: number) => (
    <WideStage
      screen={screen}
      width={at}
      selected={pointing.selected}
      hovered={pointing.hovered}
      inState={showsThree ? undefined : inState}
      onSelect={(key, isTwice) => {
        pointing.select(key);
        if (isTwice && !showsThree) onPressedTwice();
      }}
      onHover={pointing.hover}
      label={`${screen.name} in a window of ${at} px`}
    />
  );
  return (
    <Middle aria-label="The screen">
      <Ruler width={width} drawn={widths} breakpoints={breakpointsOf(screen)} onWidth={onWidth} />
      {showsThree ? (
        <Three>
          {[0.75, 1, 1.5].map((factor) => {
            const at = Math.round(width * factor);
            return (
              <figure key={factor}>
                <figcaption>{at} px</figcaption>
                {stage(at)}
              </figure>
            );
          })}
        </Three>
      ) : (
        stage(width)
      )}
    </Middle>
  );
}
