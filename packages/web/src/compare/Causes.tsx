import { all, type ComparisonAnswer, editKey, editProblem, putDismissed, putEdit } from '@tovel/core';
import { ListBox, ListBoxItem } from 'react-aria-components';
import { Link } from 'react-router';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { color, font } from '../theme/theme';
import { Button } from '../ui/controls';
import { acceptedKey } from './accepted';

export type Cause = ComparisonAnswer['causes'][number];

const Side = styled.aside`
  min-height: 0;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) auto;
  border-left: 1px solid ${color.rule};
  background: ${color.side};
`;

const Head = styled.header`
  padding: 10px 16px 8px;
  border-bottom: 1px solid ${color.ink};
  h3 {
    font-size: 13px;
  }
  p {
    font-size: 12px;
    color: ${color.ink2};
  }
`;

const List = styled(ListBox)`
  min-height: 0;
  overflow: auto;
  outline-offset: -2px;
`;

const Row = styled(ListBoxItem)`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 1px 8px;
  padding: 7px 16px;
  border-bottom: 1px solid ${color.rule};
  cursor: pointer;
  outline-offset: -3px;
  b {
    overflow-wrap: anywhere;
  }
  span {
    grid-column: 1 / -1;
    font: 12px/1.45 ${font.code};
    overflow-wrap: anywhere;
  }
  small {
    font-size: 11px;
    color: ${color.ink2};
    white-space: nowrap;
  }
  &[data-hovered] {
    background: ${color.lakeTint};
  }
  &[data-selected] {
    background: ${color.ink};
    color: ${color.onInk};
    small {
      color: ${color.onInk2};
    }
  }
`;

const Below = styled.div`
  display: grid;
  gap: 8px;
  padding: 12px 16px;
  border-top: 1px solid ${color.ink};
  p {
    font-size: 12px;
    color: ${color.ink2};
  }
  div {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
    align-items: center;
  }
`;

/** What makes the difference, what a person would notice first at the top; what is chosen can be put right or accepted. */
export function Causes({
  compared,
  chosen,
  onChoose,
}: {
  compared: ComparisonAnswer;
  chosen: Cause | null;
  onChoose: (cause: Cause | null) => void;
}) {
  const { app } = useProject();
  const { causes, unexplained, percent, problems, view } = compared;
  const isAccepted = (cause: Cause): boolean => acceptedKey(view.screen, cause.id) in app.dismissed;
  const open = causes.filter((cause) => !cause.isDecided && !isAccepted(cause)).length;
  return (
    <Side aria-label="What makes the difference">
      <Head>
        <h3>
          {causes.length === 0
            ? percent === 0
              ? 'The same, pixel by pixel'
              : 'No cause was found'
            : `${open} ${open === 1 ? 'cause' : 'causes'}${open < causes.length ? `, ${causes.length - open} decided` : ''}`}
        </h3>
        {percent > 0 && (
          <p>
            {percent.toFixed(2)} % of the pixels differ
            {unexplained > 0.005 && `; ${Math.round(unexplained * 100)} % of these have no cause here`}
          </p>
        )}
        {problems.map((problem) => (
          <p key={problem} role="status">
            {problem}
          </p>
        ))}
      </Head>
      <List
        aria-label="Causes"
        selectionMode="single"
        selectedKeys={chosen ? [chosen.id] : []}
        onSelectionChange={(keys) => {
          const [id] = keys === 'all' ? [] : [...keys];
          onChoose(causes.find((cause) => cause.id === id) ?? null);
        }}
        renderEmptyState={() => null}
      >
        {causes.map((cause) => (
          <Row key={cause.id} id={cause.id} textValue={`${cause.name}: ${cause.says}`}>
            <b>{cause.name}</b>
            <small>
              {cause.isDecided
                ? 'decided'
                : isAccepted(cause)
                  ? 'accepted'
                  : cause.alsoAt
                    ? `and ${cause.alsoAt} more`
                    : ''}
            </small>
            <span>{cause.says}</span>
          </Row>
        ))}
      </List>
      {chosen && <Deciding cause={chosen} screen={view.screen} isAccepted={isAccepted(chosen)} />}
    </Side>
  );
}

/** Whether an edit can say it: not all that a browser computes can be said of an element by itself. */
const canBeSet = (element: string, sets: Readonly<Record<string, string>>): boolean =>
  Object.entries(sets).every(([property, value]) => editProblem(editKey(element, property), value) === null);

function Deciding({ cause, screen, isAccepted }: { cause: Cause; screen: string; isAccepted: boolean }) {
  const { session, base } = useProject();
  const { element, sets, name, says } = cause;
  const key = acceptedKey(screen, cause.id);
  const make = (): void => {
    session.change(
      `As it was drawn: ${name}`.slice(0, 200),
      all(Object.entries(sets!).map(([property, value]) => putEdit(editKey(element!, property), value))),
    );
  };
  return (
    <Below>
      <div>
        {element && sets && !cause.isDecided && canBeSet(element, sets) && (
          <Button $kind="primary" onPress={make}>
            Make it as drawn
          </Button>
        )}
        {isAccepted ? (
          <Button
            onPress={() =>
              session.change(`No longer accepted: ${name}`.slice(0, 200), putDismissed(key, null))
            }
          >
            No longer accept
          </Button>
        ) : (
          !cause.isDecided && (
            <Button
              onPress={() =>
                session.change(
                  `Accepted: ${name}: ${says}`.slice(0, 200),
                  putDismissed(key, `${name}: ${says}`.slice(0, 500)),
                )
              }
            >
              Accept
            </Button>
          )
        )}
        {element && (
          <Link to={`${base}/screens/at/${screen}?element=${encodeURIComponent(element)}`}>In Screens</Link>
        )}
      </div>
      <p>
        {cause.isDecided
          ? 'Somebody decided that this shall be so.'
          : isAccepted
            ? 'Accepted as long as it differs in this very way.'
            : 'What is accepted counts no more until it differs otherwise.'}
      </p>
    </Below>
  );
}
