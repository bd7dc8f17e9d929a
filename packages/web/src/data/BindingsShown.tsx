import {
  type BindingProposal,
  expressionNames,
  findElement,
  hostOf,
  parseExpression,
  putBinding,
  saidAtFirst,
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

interface BindingsShownProps {
  readonly proposals: readonly BindingProposal[];
  /** Not there where nothing can be changed. */
  readonly onTake?: (proposals: readonly BindingProposal[]) => void;
}

/** Texts that say what is worked out from records: those that do, with their expressions, and those that seem to count. */
export function BindingsShown({ proposals, onTake }: BindingsShownProps) {
  const project = useProject();
  const { app, design, session } = project;
  const taken = Object.entries(app.bindings).filter(([key]) => findElement(design, key));
  const open = proposals.filter(({ element }) => !app.bindings[element]);
  const place = (element: string) => {
    const screen = hostOf(project, element);
    const drawn = findElement(design, element);
    return (
      <>
        <Link to={`${project.base}/junction/${screen}?element=${encodeURIComponent(element)}`}>
          {drawn && (textOf(drawn) || drawn.name)}
        </Link>
        <small>{screenName(project, screen)}</small>
      </>
    );
  };
  return (
    <Column aria-label="Texts">
      <header>
        <p>
          Texts that say what is worked out: how many records there are, a sum, a field of the record that the
          address says. What is typed is checked as one types; <code>{'`${count(tools)} tools`'}</code> joins
          words and values.
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
          {taken.map(([element, binding]) => {
            const isPicture = binding.text === undefined && binding.picture !== undefined;
            const text = binding.text ?? binding.picture ?? '';
            const screen = hostOf(project, element);
            const known = expressionNames(project, screen);
            const parsed = parseExpression(text, known);
            return (
              <tr key={element}>
                <td>{place(element)}</td>
                <td>
                  {onTake ? (
                    <ExpressionField
                      label={`What ${screenName(project, screen)} says here`}
                      value={text}
                      known={known}
                      onSave={(source) =>
                        session.change(
                          `Says ${source}`,
                          putBinding(element, { ...binding, [isPicture ? 'picture' : 'text']: source }),
                        )
                      }
                    />
                  ) : (
                    <code>{text}</code>
                  )}
                </td>
                <td>{parsed.problem || isPicture ? '' : saidAtFirst(project, parsed.expression, screen)}</td>
                <td>
                  {onTake && (
                    <Button
                      $kind="quiet"
                      onPress={() => session.change('Say what was drawn', putBinding(element, null))}
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
              <td>{onTake && <Button onPress={() => onTake([proposal])}>Let it say so</Button>}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Column>
  );
}
