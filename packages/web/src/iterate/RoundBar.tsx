import type { Answers, IterationReport } from '@tovel/core';
import styled from 'styled-components';
import { color } from '../theme/theme';
import { Button, Segments } from '../ui/controls';
import { counted } from '../ui/counted';
import { screensInWords, tallyInWords } from './standings';
import type { useEnding } from './use_ending';
import type { OpenRound } from './use_round';

const Bar = styled.header`
  grid-column: 1 / -1;
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 6px 8px;
  padding: 8px 16px;
  background: ${color.sheet};
  border-bottom: 1px solid ${color.rule};
  > div:first-child {
    flex: 1;
    min-width: 320px;
  }
  h2 {
    font-size: 15px;
  }
  p {
    color: ${color.ink2};
    font-variant-numeric: tabular-nums;
  }
`;

const sum = ({ kept, asked, letGo }: { kept: number; asked: number; letGo: number }): number =>
  kept + asked + letGo;

interface RoundBarProps {
  round: OpenRound;
  report: IterationReport;
  ending: ReturnType<typeof useEnding>;
}

/** What a round is, how much of it is there, and how it is taken in or put away. */
export function RoundBar({ round, report, ending }: RoundBarProps) {
  const { isWhole, setWhole, answers, answer, answerAll } = round;
  const { busy, failure, take, drop } = ending;
  const likely: Answers = Object.fromEntries(
    report.asks.flatMap(({ id: one, proposed }) => (proposed ? [[one, proposed]] : [])),
  );
  const likelyCount = Object.keys(likely).length;
  const count = Object.keys(answers).length;
  return (
    <Bar>
      <div role="status">
        <h2>The next round, not taken in yet</h2>
        <p>
          {screensInWords(report.screens)} · {counted(sum(report.links), 'link')}:{' '}
          {tallyInWords(report.links)}
        </p>
        {failure && <p style={{ color: color.red }}>{failure}</p>}
      </div>
      <Segments role="group" aria-label="What came in">
        <Button aria-pressed={!isWhole} onPress={() => setWhole(false)}>
          Only these screens
        </Button>
        <Button aria-pressed={isWhole} onPress={() => setWhole(true)}>
          All screens there are
        </Button>
      </Segments>
      {likelyCount > 0 && (
        <Button onPress={() => answerAll(likely)}>Take all that is sure, {likelyCount}</Button>
      )}
      {count > 0 && (
        <Button $kind="quiet" onPress={() => Object.keys(answers).forEach((key) => answer(key, null))}>
          Ask {count} again
        </Button>
      )}
      <Button $kind="quiet" isDisabled={busy !== null} onPress={() => drop()}>
        Put away
      </Button>
      <Button
        $kind="primary"
        isDisabled={busy !== null}
        onPress={() => take()}
        // What it says changes while one answers; nothing else may come to lie under the pointer.
        style={{ minWidth: 190 }}
      >
        {busy === 'take'
          ? 'Taking it in …'
          : report.asks.length
            ? `Take it in, decide ${report.asks.length} later`
            : 'Take it in'}
      </Button>
    </Bar>
  );
}
