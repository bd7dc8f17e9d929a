import type { IterationReport } from '@tovel/core';
import styled from 'styled-components';
import { color } from '../theme/theme';
import { Decisions } from './Decisions';
import { DifferenceList } from './DifferenceList';
import { EffectsList } from './EffectsList';
import { KeptList } from './KeptList';
import { PointByName } from './PointByName';
import type { Chosen } from './use_chosen';
import type { RoundEffects } from './use_round';

const Side = styled.aside`
  overflow: auto;
  background: ${color.sheet};
  border-left: 1px solid ${color.rule};
  h3 {
    display: flex;
    justify-content: space-between;
    font-size: 13px;
    padding: 12px 16px 6px;
  }
  > p {
    padding: 0 16px 8px;
    color: ${color.ink2};
  }
  > form {
    padding: 0 16px 12px;
  }
`;

interface RoundSideProps {
  chosen: Chosen;
  report: IterationReport;
  effects: RoundEffects | null;
}

/** What is to be decided, and what a round does: to the app, or to the screen that was chosen. */
export function RoundSide({ chosen, report, effects }: RoundSideProps) {
  const { at, asks, ask, page, ofKept, ofAsk, isPointing, pointed, setPointed, chooseElement, onAnswer } =
    chosen;
  return (
    <Side aria-label="Decisions and differences">
      <h3>
        To decide <span>{asks.length}</span>
      </h3>
      {asks.length ? (
        <Decisions
          asks={asks}
          chosen={ofKept ? null : (ask?.id ?? null)}
          onChoose={chooseElement}
          pointed={pointed}
          onAnswer={onAnswer}
        />
      ) : (
        <p>{at === null ? 'Nothing: all that was decided goes along.' : 'Nothing on this screen.'}</p>
      )}
      {ofAsk && isPointing && page && (
        <PointByName key={ofAsk.element} named={page.named} onPoint={setPointed} />
      )}
      {at === null ? (
        <>
          <h3>What it does to the app</h3>
          <EffectsList effects={effects} report={report} />
        </>
      ) : (
        <OfScreen chosen={chosen} />
      )}
    </Side>
  );
}

/** What differs on the screen that was chosen, and what was decided of it that goes along. */
function OfScreen({ chosen }: { chosen: Chosen }) {
  const { current, page, kept, ofKept, marked, setMarked, pointed, setPointed, chooseElement, onAnswer } =
    chosen;
  return (
    <>
      <h3>
        What differs <span>{page?.differences.length ?? ''}</span>
      </h3>
      <DifferenceList
        differences={page?.differences ?? []}
        marked={marked}
        onMark={setMarked}
        nothing={
          !page
            ? 'Comparing …'
            : current?.standing === 'new'
              ? 'All of it is new.'
              : current?.standing === 'gone'
                ? 'It is gone.'
                : 'Nothing: it is the same.'
        }
      />
      {kept.length > 0 && (
        <>
          <h3>
            Goes along <span>{kept.length}</span>
          </h3>
          <p>Where one of them is another element now, choose it and press the right one.</p>
          {ofKept && page && <PointByName key={ofKept.element} named={page.named} onPoint={setPointed} />}
          <KeptList
            kept={kept}
            chosen={ofKept?.element ?? null}
            onChoose={chooseElement}
            pointed={ofKept && pointed}
            onAnswer={onAnswer}
          />
        </>
      )}
    </>
  );
}
