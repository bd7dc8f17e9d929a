import {
  type BindingProposal,
  boundParts,
  type BoundPart,
  readBinding,
  rowsNames,
  expressionNames,
  findElement,
  hostOf,
  putBinding,
  saidAtFirst,
  withoutPart,
  screenName,
  textOf,
} from '@tovel/core';
import { Link } from 'react-router';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { Button } from '../ui/controls';
import { ExpressionField } from './ExpressionField';
import { SeenTableColumn } from './middle';

const Column = styled(SeenTableColumn)`
  th:first-child {
    width: 24%;
  }
  th:nth-child(3) {
    width: 20%;
  }
  th:nth-child(4) {
    width: 104px;
  }
  td small {
    display: block;
  }
`;

/** What of an element it is, where that is not its text. */
const PARTS: Readonly<Partial<Record<BoundPart, string>>> = {
  shown: 'whether it is there',
  picture: 'its picture',
  value: 'what stands in it',
  enabled: 'whether it can be used',
  options: 'what can be chosen',
  rows: 'which records it shows',
  to: 'where it leads',
  marked: 'whether it looks like another',
  labels: 'beneath its points',
  values: 'how large its points are',
};

/** Parts that no text stands for. */
const UNSAID: ReadonlySet<BoundPart> = new Set(['picture', 'rows']);

const isChart = ({ shows }: BindingProposal): boolean => shows.startsWith('chart(');

/** Longer texts are those of whole lists. */
const LONGEST = 60;
const shortened = (text: string): string =>
  text.length > LONGEST ? `${text.slice(0, LONGEST).trimEnd()} …` : text;

interface BindingsShownProps {
  readonly proposals: readonly BindingProposal[];
  /** Not there where nothing can be changed. */
  readonly onTake?: (proposals: readonly BindingProposal[]) => void;
}

/** Texts and charts that are worked out from records: those that are, with their expressions, and those that seem to be. */
export function BindingsShown({ proposals, onTake }: BindingsShownProps) {
  const project = useProject();
  const { app, design, session } = project;
  const taken = Object.entries(app.bindings).flatMap(([key, binding]) =>
    findElement(design, key)
      ? boundParts(binding).map(([part, source]) => ({ key, binding, part, source }))
      : [],
  );
  const open = proposals.filter(({ element }) => !app.bindings[element]);
  const place = (element: string) => {
    const screen = hostOf(project, element);
    const drawn = findElement(design, element);
    return (
      <>
        <Link to={`${project.base}/junction/${screen}?element=${encodeURIComponent(element)}`}>
          {drawn && shortened(textOf(drawn) || drawn.name)}
        </Link>
        <small>{screenName(project, screen)}</small>
      </>
    );
  };
  return (
    <Column aria-label="Texts">
      <header>
        <p>
          What elements say that is worked out: how many records there are, a sum, a field of the record that
          the address says, what can be chosen, what a chart draws. What is typed is checked as one types;{' '}
          <code>{'`${count(tools)} tools`'}</code> joins words and values.
        </p>
        {onTake && open.length > 0 && (
          <Button $kind="primary" onPress={() => onTake(open)}>
            {open.length === 1 ? 'Let it say so' : `Let these ${open.length} say so`}
          </Button>
        )}
      </header>
      <table>
        <thead>
          <tr>
            <th>Drawn</th>
            <th>Says</th>
            <th>At first</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {taken.map(({ key: element, binding, part, source }) => {
            const screen = hostOf(project, element);
            const known = part === 'rows' ? rowsNames(project) : expressionNames(project, screen);
            const parsed = readBinding(part, source, known);
            return (
              <tr key={`${element} ${part}`}>
                <td>
                  {place(element)}
                  {PARTS[part] && <small>{PARTS[part]}</small>}
                </td>
                <td>
                  {onTake ? (
                    <ExpressionField
                      label={`What ${screenName(project, screen)} says here`}
                      value={source}
                      problemOf={(next) => readBinding(part, next, known).problem?.message ?? null}
                      known={known}
                      onSave={(next) =>
                        session.change(`Says ${next}`, putBinding(element, { ...binding, [part]: next }))
                      }
                    />
                  ) : (
                    <code>{source}</code>
                  )}
                </td>
                <td>
                  {parsed.problem || UNSAID.has(part) ? '' : saidAtFirst(project, parsed.expression, screen)}
                </td>
                <td>
                  {onTake && (
                    <Button
                      $kind="quiet"
                      onPress={() =>
                        session.change('Say what was drawn', putBinding(element, withoutPart(binding, part)))
                      }
                    >
                      Give it up
                    </Button>
                  )}
                </td>
              </tr>
            );
          })}
          {open.map((proposal) => (
            <tr key={proposal.element}>
              <td>{place(proposal.element)}</td>
              <td>
                <code>{proposal.shows}</code>
                <small>
                  {Math.round(proposal.confidence * 100)} % sure: {proposal.reason}
                </small>
              </td>
              <td />
              <td>
                {onTake && (
                  <Button onPress={() => onTake([proposal])}>
                    {isChart(proposal) ? 'Let it draw' : 'Let it say so'}
                  </Button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </Column>
  );
}
