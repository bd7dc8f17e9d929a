import { type Finding, stationOf, type View } from '@tovel/core';
import { useMemo } from 'react';
import styled from 'styled-components';
import { FoundList } from '../findings/FoundList';
import { useFound } from '../project/context';
import { color } from '../theme/theme';

const Column = styled.section`
  min-height: 0;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  max-width: 860px;
  width: 100%;
  margin: 0 auto;
  border-inline: 1px solid ${color.rule};
  background: ${color.sheet};
  > p {
    padding: 12px 16px;
    color: ${color.ink2};
  }
`;

/** What comparisons and sweeps found that nobody has let stand. */
export function ComparedFindings({
  views,
  onView,
  onWidths,
}: {
  views: readonly View[];
  onView: (view: View) => void;
  /** Goes to a screen among the widths. */
  onWidths: (screen: string) => void;
}) {
  const { findings } = useFound();
  const own = useMemo(() => findings.filter(({ code }) => stationOf(code) === 'compare'), [findings]);
  const go = ({ screen, width }: Finding): void => {
    const view = views.find((one) => one.screen === screen && one.width === width);
    if (view) onView(view);
    else if (screen) onWidths(screen);
  };
  return (
    <Column aria-label="Findings of comparing">
      <p>
        As of the last time that screens were compared, and looked at from narrow to wide. After a step,
        compare or look again.
      </p>
      <FoundList
        findings={own}
        onGo={go}
        nothing="Nothing was found: no screen looks less like it was drawn than before, and none breaks at a width."
      />
    </Column>
  );
}
