import { lookValues, isUsed } from '@tovel/core';
import { useMemo } from 'react';
import { useProject } from '../project/context';
import { ScreensNav } from '../screens/ScreensNav';
import { StationView } from '../screens/StationView';
import { color } from '../theme/theme';
import { Button, Segments } from '../ui/controls';
import { useQueryParam } from '../ui/use_query_param';
import { DrawnAlternatives } from './DrawnAlternatives';
import { RuledLooks } from './RuledLooks';

/** How the app, or one of its screens, would be otherwise: in looks made by rule, and as it was drawn in several ways. */
export function AlternativesView() {
  const project = useProject();
  const { app, design, graph } = project;
  const drawn = Object.values(app.screens).filter(({ use }) => use === 'alternative').length;
  const [kind, setKind] = useQueryParam('kind', drawn > 0 ? 'drawn' : 'looks');
  const screens = useMemo(
    () => design.screens.filter((screen) => isUsed(project, screen.key)),
    [design, graph.screens.join()],
  );
  const values = useMemo(() => lookValues(screens, app.tokens), [screens, app.tokens]);
  const isDrawn = kind === 'drawn';
  return (
    <StationView>
      <ScreensNav>
        <Segments role="group" aria-label="Kind of alternatives" style={{ marginLeft: 'auto' }}>
          <Button aria-pressed={!isDrawn} onPress={() => setKind('looks')}>
            Looks by rule
          </Button>
          <Button aria-pressed={isDrawn} onPress={() => setKind('drawn')}>
            Drawn {drawn}
          </Button>
        </Segments>
        <span style={{ color: color.ink2 }}>{Object.keys(values).length} values that recur</span>
      </ScreensNav>
      {isDrawn ? <DrawnAlternatives /> : <RuledLooks screens={screens} values={values} />}
    </StationView>
  );
}
