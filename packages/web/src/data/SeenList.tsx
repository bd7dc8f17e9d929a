import { type FormProposal, screenName } from '@tovel/core';
import { Link } from 'react-router';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { color, font } from '../theme/theme';

const Column = styled.section`
  min-height: 0;
  overflow: auto;
  padding: 14px 20px 28px;
  background: ${color.sheet};
  > p {
    max-width: 640px;
    margin-bottom: 12px;
    color: ${color.ink2};
  }
  table {
    width: 100%;
    max-width: 860px;
    margin-bottom: 22px;
    table-layout: fixed;
    border-collapse: collapse;
  }
  caption {
    padding: 8px 0 5px;
    text-align: left;
    border-bottom: 1px solid ${color.ink};
  }
  caption small {
    color: ${color.ink2};
    margin-left: 8px;
  }
  td {
    padding: 5px 14px 5px 0;
    border-bottom: 1px solid ${color.rule};
    vertical-align: top;
  }
  td:first-child {
    width: 34%;
  }
  td:nth-child(2) {
    width: 26%;
  }
  code {
    font: 12px ${font.code};
  }
  td small {
    color: ${color.ink2};
  }
`;

const PURPOSES: Readonly<Record<FormProposal['purpose'], string>> = {
  'sign-in': 'signs in',
  'sign-up': 'makes an account',
  'reset-password': 'asks for another password',
  search: 'searches',
  filter: 'narrows a list down',
  subscribe: 'subscribes',
  send: 'sends a message',
  pay: 'pays',
  change: 'changes a record',
  add: 'adds a record',
};

/** The forms of the screens: what each asks for, and what sending it seems to do. */
export function FormsSeen({ forms }: { forms: readonly FormProposal[] }) {
  const project = useProject();
  return (
    <Column aria-label="Forms">
      <p>
        What is filled in and sent together, as it shows on the screens. Where a form leads is wired in
        Junction, at what sends it.
      </p>
      {forms.map((form) => (
        <table key={`${form.screen} ${form.element}`}>
          <caption>
            <b>
              {screenName(project, form.screen)} {PURPOSES[form.purpose]}
            </b>
            <small>
              {Math.round(form.confidence * 100)} % sure: {form.reason}
              {form.submit && (
                <>
                  {' · '}
                  <Link
                    to={`${project.base}/junction/${form.screen}?element=${encodeURIComponent(form.submit.element)}`}
                  >
                    {form.submit.label}
                  </Link>
                </>
              )}
            </small>
          </caption>
          <tbody>
            {form.fields.map((field) => (
              <tr key={field.element}>
                <td>
                  <Link
                    to={`${project.base}/screens/at/${form.screen}?element=${encodeURIComponent(field.element)}`}
                  >
                    {field.label || 'a field that nothing calls'}
                  </Link>
                </td>
                <td>
                  <code>{field.field}</code>
                </td>
                <td>
                  <small>
                    {field.type}
                    {field.required ? ', required' : ''}
                  </small>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      ))}
    </Column>
  );
}
