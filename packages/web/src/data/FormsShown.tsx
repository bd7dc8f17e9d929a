import {
  all,
  type Change,
  type Form,
  type FormProposal,
  type Interaction,
  type Project,
  putForm,
  putInteraction,
  screenName,
} from '@tovel/core';
import { Link } from 'react-router';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { color } from '../theme/theme';
import { Button } from '../ui/controls';
import { FormFieldRow } from './FormFieldRow';
import { SeenColumn } from './middle';

const Column = styled(SeenColumn)`
  padding: 0 0 28px;
  table {
    max-width: 980px;
    margin: 10px 18px 22px;
  }
  caption {
    padding: 8px 0 6px;
    text-align: left;
    border-bottom: 1px solid ${color.ink};
  }
  caption > div {
    display: flex;
    align-items: center;
    gap: 12px;
  }
  caption > div > :nth-child(2) {
    margin-left: auto;
  }
  caption small {
    display: block;
    padding-top: 2px;
    color: ${color.ink2};
  }
  td:first-child {
    width: 28%;
  }
  td:nth-child(2) {
    width: 24%;
  }
  td:nth-child(3) {
    width: 108px;
  }
  td:last-child {
    width: 108px;
    text-align: right;
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

/** Forms from this on are made to work together. */
const SURE = 0.6;

interface FormsShownProps {
  readonly forms: readonly FormProposal[];
  /** Those that can be made to work. */
  readonly open: readonly FormProposal[];
  /** Not there where nothing can be changed. */
  readonly onMake?: (forms: readonly FormProposal[]) => void;
}

/** The forms of the screens: what each asks for, what sending it does, and what its fields must be. */
export function FormsShown({ forms, open, onMake }: FormsShownProps) {
  const project = useProject();
  const { app, session } = project;
  const sure = open.filter(({ confidence }) => confidence >= SURE);
  const canMake = new Set(open.map(({ element }) => element));
  return (
    <Column aria-label="Forms">
      <header>
        <p>
          What is filled in and sent together. A form that works checks its fields when one leaves them and
          before it is sent; then it adds a record, and leads where it is wired to, else to where one sees
          that record.
        </p>
        {onMake && sure.length > 0 && (
          <Button $kind="primary" onPress={() => onMake(sure)}>
            {sure.length === 1 ? 'Make the sure one work' : `Make all ${sure.length} sure ones work`}
          </Button>
        )}
      </header>
      {forms.map((form) => {
        const kept: Form | undefined = app.forms[form.element];
        const adds = kept && addedTo(app.interactions, form);
        return (
          <table key={`${form.screen} ${form.element}`}>
            <caption>
              <div>
                <b>
                  {screenName(project, form.screen)} {PURPOSES[form.purpose]}
                </b>
                {onMake && canMake.has(form.element) && (
                  <Button onPress={() => onMake([form])}>Make it work</Button>
                )}
                {onMake && kept && (
                  <Button
                    $kind="quiet"
                    onPress={() =>
                      session.change(
                        `Give the form of ${screenName(project, form.screen)} up`,
                        givenUp(app.interactions, form),
                      )
                    }
                  >
                    Give it up
                  </Button>
                )}
              </div>
              <small>
                {kept
                  ? adds
                    ? `Works: adds to ${app.collections[adds]?.name ?? 'a collection that is gone'}`
                    : 'Works: checks its fields'
                  : `${Math.round(form.confidence * 100)} % sure: ${form.reason}`}
                {kept && leadsOn(project, form)}
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
              {form.fields.map((field, i) => (
                <FormFieldRow
                  key={field.element}
                  screen={form.screen}
                  form={form.element}
                  proposed={field}
                  label={field.label || `Field ${i + 1}`}
                  kept={onMake && kept}
                />
              ))}
            </tbody>
          </table>
        );
      })}
    </Column>
  );
}

type Interactions = Readonly<Record<string, Interaction>>;

/** The collection that sending a form adds to. */
function addedTo(interactions: Interactions, { element, submit }: FormProposal): string | undefined {
  const own = submit ? interactions[submit.element] : undefined;
  const step =
    own &&
    [...(own.before ?? []), own.target].find(
      (one) => one.kind === 'record' && one.deed.kind === 'add' && one.deed.form === element,
    );
  return step?.kind === 'record' ? step.collection : undefined;
}

/** Where it leads once it is sent, as the end of a sentence. */
function leadsOn(project: Project, { submit }: FormProposal): string {
  const target = submit ? project.app.interactions[submit.element]?.target : undefined;
  return target?.kind === 'screen' ? `, then leads to ${screenName(project, target.screen)}` : '';
}

/** Without the form, and without what sending it adds; where it leads stays. */
function givenUp(interactions: Interactions, { element, submit }: FormProposal): Change {
  const own = submit ? interactions[submit.element] : undefined;
  const isAdding = (one: Interaction['target']): boolean =>
    one.kind === 'record' && one.deed.kind === 'add' && one.deed.form === element;
  if (!own || !submit) return putForm(element, null);
  const { before, ...rest } = own;
  const kept = (before ?? []).filter((one) => !isAdding(one));
  return all([
    putForm(element, null),
    putInteraction(
      submit.element,
      isAdding(own.target) ? null : { ...rest, ...(kept.length ? { before: kept } : {}) },
    ),
  ]);
}
