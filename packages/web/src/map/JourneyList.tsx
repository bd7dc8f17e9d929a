import { checkJourney, putJourney, uniqueName } from '@tovel/core';
import { Link } from 'react-router';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { color } from '../theme/theme';
import { Button } from '../ui/controls';
import { JOURNEY_COLORS } from './journey_lines';

const Section = styled.section`
  border-top: 1px solid ${color.rule};
  max-height: 220px;
  overflow: auto;
  background: inherit;
  p {
    padding: 0 16px 12px;
    color: ${color.ink2};
  }
`;

const Row = styled.button`
  display: flex;
  width: 100%;
  gap: 10px;
  padding: 6px 16px 6px 12px;
  border: 0;
  border-top: 1px solid ${color.rule};
  border-left: 5px solid;
  background: none;
  color: ${color.ink};
  text-align: left;
  cursor: pointer;
  &:hover {
    background: ${color.lakeTint};
  }
  &[aria-pressed='true'] {
    background: ${color.ink};
    color: ${color.onInk};
  }
  span:first-child {
    flex: 1;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  span:last-child {
    color: ${color.ink2};
    white-space: nowrap;
  }
  &[aria-pressed='true'] span:last-child {
    color: inherit;
  }
  span[data-broken] {
    color: ${color.red} !important;
  }
`;

interface ListProps {
  chosen: string | null;
  onChoose: (id: string | null) => void;
}

/** Named ways through the app, each with whether it can still be made. */
export function JourneyList({ chosen, onChoose }: ListProps) {
  const project = useProject();
  const { app, graph, session, base } = project;
  const journeys = Object.entries(app.journeys);
  const begin = (): void => {
    const key = uniqueName('journey', (candidate) => !!app.journeys[candidate]);
    const names = new Set(journeys.map(([, journey]) => journey.name));
    const name = uniqueName('New journey', (candidate) => names.has(candidate), ' ');
    session.change(
      `Begin the journey ${name}`,
      putJourney(key, { name, start: graph.start ?? graph.screens[0], steps: [] }),
    );
    onChoose(key);
  };
  return (
    <Section aria-label="Journeys">
      <h2>
        Journeys
        <Button $kind="quiet" onPress={begin}>
          Compose one
        </Button>
      </h2>
      {!journeys.length && (
        <p>
          A named way through the app, checked after each change. Compose one here, or{' '}
          <Link to={`${base}/run?record=1`}>record it in Run</Link>.
        </p>
      )}
      {journeys.map(([key, journey], i) => {
        const { problem } = checkJourney(project, graph, journey);
        return (
          <Row
            key={key}
            type="button"
            aria-pressed={chosen === key}
            style={{ borderLeftColor: JOURNEY_COLORS[i % JOURNEY_COLORS.length] }}
            onClick={() => onChoose(chosen === key ? null : key)}
          >
            <span title={journey.name}>{journey.name}</span>
            <span data-broken={problem ? true : undefined}>
              {problem
                ? `stuck at ${problem.step + 1}`
                : `${journey.steps.length} ${journey.steps.length === 1 ? 'step' : 'steps'}`}
            </span>
          </Row>
        );
      })}
    </Section>
  );
}
