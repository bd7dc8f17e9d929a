import { all, type Change, putForm, putInteraction } from '../change/change.ts';
import type { OperationDoes } from '../described/deeds.ts';
import { apiOf } from '../described/keep.ts';
import { fieldsAlike } from '../described/match.ts';
import type { App, Form, Interaction } from '../model/app.ts';
import { pressTo } from '../model/interaction.ts';
import { type Project, screenName } from '../model/project.ts';
import type { DataProposals } from './propose.ts';

/** Something that can ask an operation of an API before it does what it does. */
export interface CallProposal {
  /** Key of the element. */
  readonly element: string;
  readonly screen: string;
  readonly label: string;
  readonly api: string;
  readonly operation: string;
  readonly reason: string;
  readonly change: Change;
}

/**
 * Where signing in and out can be asked of a described API: forms by which one signs in and that work, and controls by which
 * one leaves. What else they do is done when the API has answered.
 */
export function proposeCalls(
  { app, design }: Project,
  found: Pick<DataProposals, 'forms' | 'actions'>,
): CallProposal[] {
  const doing = (does: OperationDoes): { readonly api: string; readonly operation: string } | null => {
    for (const api of Object.keys(app.apis).sort()) {
      const operation = apiOf(app, api)!.operations.find(
        (one) => one.does === does && !one.path.includes('{'),
      );
      if (operation) return { api, operation: operation.id };
    }
    return null;
  };
  const name = (screen: string): string => screenName({ app, design }, screen);
  const asks = ({ before = [], target }: Interaction): boolean =>
    [...before, target].some(({ kind }) => kind === 'call');
  const asking = (element: string, step: Extract<Interaction['target'], { kind: 'call' }>): Change | null => {
    const own = app.interactions[element];
    if (own && asks(own)) return null;
    return putInteraction(element, own ? { ...own, before: [step, ...(own.before ?? [])] } : pressTo(step));
  };
  const [signIn, signOut] = [doing('sign-in'), doing('sign-out')];
  const ins = found.forms.flatMap(({ element: form, screen, purpose, submit }): CallProposal[] => {
    if (!signIn || purpose !== 'sign-in' || !submit || !app.forms[form]) return [];
    const asks = asking(submit.element, { kind: 'call', ...signIn, form });
    const change = asks && all([putForm(form, inWordsOf(app, signIn, app.forms[form])), asks]);
    const label = `Signing in on ${name(screen)}`;
    const reason = 'its form signs in, and so does the operation';
    return change ? [{ ...signIn, element: submit.element, screen, label, reason, change }] : [];
  });
  const outs = found.actions.flatMap(({ element, screen, does, label: says }): CallProposal[] => {
    if (!signOut || does !== 'sign-out') return [];
    const change = asking(element, { kind: 'call', ...signOut });
    const label = `“${says}” on ${name(screen)}`;
    return change ? [{ ...signOut, element, screen, label, reason: 'both say that one leaves', change }] : [];
  });
  return [...ins, ...outs];
}

/** A form whose fields are called as the operation calls what it takes, so that what that says of one is said there. */
function inWordsOf(
  app: App,
  { api, operation: id }: Pick<CallProposal, 'api' | 'operation'>,
  form: Form,
): Form {
  const sends = apiOf(app, api)?.operations.find((one) => one.id === id)?.sends ?? [];
  const fields = form.fields.map(({ field }) => ({ name: field, type: 'text' as const }));
  const called = new Map(
    fieldsAlike({ name: '', fields }, sends).map(({ field, property }) => [field, property]),
  );
  const isCode = (name: string | undefined): name is string => name !== undefined && /^[a-z]\w*$/i.test(name);
  return {
    ...form,
    fields: form.fields.map((one) => {
      const name = called.get(one.field);
      return isCode(name) ? { ...one, field: name } : one;
    }),
  };
}

/** All of them as one change. */
export const makeCalls = (calls: readonly CallProposal[]): Change => all(calls.map(({ change }) => change));
