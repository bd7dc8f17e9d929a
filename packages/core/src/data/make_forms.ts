import { all, applyChange, type Change, putCollection, putForm, putInteraction } from '../change/change.ts';
import type {
  App,
  Collection,
  FieldType,
  Form,
  FormField,
  Interaction,
  RecordField,
  Target,
} from '../model/app.ts';
import { elementOfInteraction, isStep, pressTo } from '../model/interaction.ts';
import { uniqueName } from '../model/names.ts';
import { pressablesOf } from '../links/pressable.ts';
import { containersOf, findElement, isWithin, screenOf } from '../model/places.ts';
import { type Project, screenName, screensByKey, textOf, walkElements } from '../model/project.ts';
import { recordsOf, titleField } from '../records/records.ts';
import { decideRole } from '../roles/decide.ts';
import { inferRoles } from '../roles/infer.ts';
import { sightOf } from '../roles/sight.ts';
import type { FormPurpose } from './form_purpose.ts';
import type { FormFieldType, FormProposal, ProposedFormField } from './forms.ts';
import { takeCollection } from './take_collection.ts';
import { collectionIn } from './names.ts';
import type { DataProposals } from './propose.ts';

/** What forms of a purpose add records to, where nothing says what they are; null for those that add none. */
const ADDS_TO: Readonly<Record<FormPurpose, string | null>> = {
  'sign-in': null,
  'sign-up': 'accounts',
  'reset-password': null,
  search: null,
  filter: null,
  subscribe: 'subscriptions',
  send: 'messages',
  pay: 'payments',
  change: null,
  add: 'entries',
};

/** What becomes of a form that is to work. */
export interface MadeForm {
  readonly proposal: FormProposal;
  readonly form: Form;
  /** The collection that it adds a record to, by its id. */
  readonly collection: string | null;
}

/** Forms that can be made to work: those that are sent. */
export const sendable = (forms: readonly FormProposal[]): FormProposal[] =>
  forms.filter(({ purpose, submit }) => submit !== null && purpose !== 'search' && purpose !== 'filter');

/**
 * Makes forms work: their fields are checked, and sending them adds a record of what their screen speaks of, with a field for
 * each of theirs, before it leads where it led. Fields that are drawn become real ones.
 */
export function makeForms(
  project: Project,
  proposals: Pick<DataProposals, 'collections'>,
  forms: readonly FormProposal[],
): { readonly change: Change | null; readonly app: App; readonly made: readonly MadeForm[] } {
  let { app } = project;
  const changes: Change[] = [];
  const made: MadeForm[] = [];
  const put = (change: Change): void => {
    changes.push(change);
    app = applyChange(app, change);
  };
  for (const proposal of forms) {
    if (app.forms[proposal.element]) continue;
    put(realFields({ ...project, app }, proposal));
    const collection = collectionFor({ ...project, app }, proposals, proposal, put);
    const named =
      collection === null
        ? null
        : withFields(
            { ...project, app },
            app.collections[collection] ?? { name: collection, fields: [], rows: [] },
            proposal.fields,
          );
    if (collection !== null && named) put(putCollection(collection, named.collection));
    const form: Form = {
      fields: proposal.fields.map((field, i) => ({
        element: field.element,
        field: named?.names[i] ?? field.field,
        ...(field.required || (proposal.purpose === 'sign-in' && field.type !== 'yes-no')
          ? { required: true as const }
          : {}),
        ...sameAs(field, proposal.fields),
      })),
      ...(proposal.submit ? { submit: proposal.submit.element } : {}),
    };
    put(putForm(proposal.element, form));
    if (proposal.submit) {
      const sends = sending({ ...project, app }, proposal, collection);
      if (sends) put(sends);
    }
    made.push({ proposal, form, collection });
  }
  return { change: changes.length ? all(changes) : null, app, made };
}

const AGAIN = /\b(repeat|confirm|again|re-?enter|re-?type|verify)\b/i;

/** What is asked for again has to be the same; of passwords the second one. */
function sameAs(field: ProposedFormField, fields: readonly ProposedFormField[]): Pick<FormField, 'same'> {
  if (field.type !== 'password') {
    const before = fields.slice(0, fields.indexOf(field)).findLast(({ type }) => type === field.type);
    return before && before.type !== 'yes-no' && AGAIN.test(field.label) ? { same: before.field } : {};
  }
  const [first, second] = fields.filter(
    ({ type, label }) => type === 'password' && !/\b(old|current)\b/i.test(label),
  );
  return second === field ? { same: first.field } : {};
}

/** Drawn fields as what they were taken for. */
function realFields({ design, app }: Project, { screen, fields, submit }: FormProposal): Change {
  const drawn = screensByKey(design).get(screen)!;
  const guesses = inferRoles(drawn);
  const { byKey } = sightOf(drawn);
  const keys = [...fields.map(({ element }) => element), ...(submit ? [submit.element] : [])];
  return all(
    keys.flatMap((key): Change[] => {
      const guess = guesses.get(key);
      const isReal = /^(input|select|textarea|button)$/.test(byKey.get(key)?.element.tag ?? '');
      return guess && !isReal && !app.layers[key]?.role ? [decideRole(app, key, guess)] : [];
    }),
  );
}

/** The id of what the form adds to: of what its screen speaks of, taken along where it shows; it may not be there yet. */
function collectionFor(
  project: Project,
  { collections }: Pick<DataProposals, 'collections'>,
  { screen, purpose, submit }: FormProposal,
  put: (change: Change) => void,
): string | null {
  const { app } = project;
  const usual = purpose === 'pay' && /\border\b/i.test(submit?.label ?? '') ? 'orders' : ADDS_TO[purpose];
  if (usual === null) return null;
  const words = screenName(project, screen);
  const said =
    collectionIn(words) ?? collectionIn(`${words.replace(/^(new|add|create|report|send)\s+/i, '')}s`);
  const name = purpose === 'add' || purpose === 'send' ? (said ?? usual) : usual;
  const known = Object.entries(app.collections).find(([, one]) => one.name === name);
  if (known) return known[0];
  const proposal = collections.find((one) => one.name === name);
  if (proposal) {
    const { id, change } = takeCollection(project, proposal);
    put(change);
    return id;
  }
  return uniqueName(name, (one) => app.collections[one] !== undefined, '');
}

const TYPES: Readonly<Partial<Record<FormFieldType, FieldType>>> = {
  email: 'email',
  tel: 'phone',
  url: 'link',
  number: 'number',
  range: 'number',
  date: 'date',
  time: 'time',
  'one-of': 'one-of',
  'yes-no': 'yes-no',
};

/** The collection with a field for each of a form's, and what each of those is called in it. */
function withFields(
  { design }: Project,
  collection: Collection,
  asked: readonly ProposedFormField[],
): { readonly collection: Collection; readonly names: readonly string[] } {
  const fields: RecordField[] = [...collection.fields];
  const title = titleField(design, collection);
  const plain = (text: string): string => text.toLowerCase().replace(/[^\p{L}\p{N}]+/gu, '');
  const isSame = (field: RecordField, one: ProposedFormField): boolean =>
    field.name === one.field || (one.label !== '' && plain(field.label ?? '') === plain(one.label));
  const used = new Set<string>();
  // Two that are called the same are not one field.
  const matched = asked.map((one) => {
    const name = fields.find((field) => !used.has(field.name) && isSame(field, one))?.name;
    if (name !== undefined) used.add(name);
    return name;
  });
  // What calls the records is filled in by what is asked first, where nothing is called so.
  const first =
    title && !matched.includes(title.name) ? asked.indexOf(titling(design, collection, title, asked)!) : -1;
  const names = asked.map((one, i) => {
    const known = matched[i] ?? (i === first ? title!.name : undefined);
    if (known !== undefined) return known;
    const name = uniqueName(one.field, (taken) => fields.some((field) => field.name === taken), '');
    fields.push({ name, type: TYPES[one.type] ?? 'text', ...(one.label ? { label: one.label } : {}) });
    return name;
  });
  return { collection: { ...collection, fields }, names };
}

/** What is asked that calls a record: a choice among what records are called, else the first text. */
function titling(
  design: Project['design'],
  collection: Collection,
  { name }: RecordField,
  asked: readonly ProposedFormField[],
): ProposedFormField | undefined {
  const called = new Set(recordsOf(design, collection).map(({ values }) => values[name]?.text.toLowerCase()));
  const chooses = ({ element, type }: ProposedFormField): boolean => {
    const at = type === 'one-of' ? findElement(design, element) : null;
    let isAmong = false;
    if (at)
      walkElements(at, (one) => {
        isAmong ||= one.tag === 'option' && called.has(textOf(one).toLowerCase());
      });
    return isAmong;
  };
  return asked.find(chooses) ?? asked.find(({ type }) => type === 'text' || type === 'one-of');
}

/** What sends the form adds the record first, and then leads where it led, or where one expects to be then; null where it does neither. */
function sending(project: Project, proposal: FormProposal, collection: string | null): Change | null {
  const { app } = project;
  const { element, submit } = proposal;
  const key = submit!.element;
  const own: Interaction | undefined = app.interactions[key];
  const adds: Target[] =
    collection === null ? [] : [{ kind: 'record', collection, deed: { kind: 'add', form: element } }];
  const steps = [...adds, ...(own ? [...(own.before ?? []), own.target] : [])];
  const onward = own && LEADS.has(own.target.kind) ? null : onwardFrom(project, proposal, collection);
  const whole = onward && steps.every(isStep) ? [...steps, onward] : steps;
  const target = whole.at(-1);
  if (!target || (!adds.length && whole === steps)) return null;
  const before = whole.slice(0, -1).filter(isStep);
  return putInteraction(key, { ...(own ?? pressTo(target)), target, ...(before.length ? { before } : {}) });
}

const LEADS: ReadonlySet<Target['kind']> = new Set<Target['kind']>([
  'screen',
  'back',
  'anchor',
  'open',
  'close',
  'external',
]);

const TAKES_BACK = /^(cancel|discard|never ?mind)\b/i;

/** Where one expects to be once a form is sent: where its Cancel leads, else where its records are seen, and signed in at the start. */
function onwardFrom(
  { design, app }: Project,
  { screen, element, purpose }: FormProposal,
  collection: string | null,
): Target | null {
  const to = (key: string | null | undefined): Target | null =>
    key && key !== screen && app.screens[key]?.use === 'screen' ? { kind: 'screen', screen: key } : null;
  const drawn = screensByKey(design).get(screen)!;
  const [around = element] = containersOf(design, element);
  const cancel = pressablesOf(drawn).find(
    ({ element: at, label }) =>
      TAKES_BACK.test(label.trim()) &&
      isWithin(design, at.key, around) &&
      LEADS.has(app.interactions[at.key]?.target.kind),
  );
  if (cancel) return app.interactions[cancel.element.key].target;
  if (purpose === 'sign-in') return to(app.start);
  const lists = new Set(
    (collection === null ? [] : (app.collections[collection]?.rows ?? [])).map((row) =>
      screenOf(design, row.element),
    ),
  );
  // What is added to a list beside the form is seen there; a list that others see is none to come to.
  return lists.has(screen) ? null : to([...lists].find((list) => areLinked({ design, app }, screen, list)));
}

/** Whether either of two screens leads to the other. */
const areLinked = ({ design, app }: Project, one: string, other: string): boolean =>
  Object.entries(app.interactions).some(([key, { target }]) => {
    if (target.kind !== 'screen' || (target.screen !== one && target.screen !== other)) return false;
    const from = screenOf(design, elementOfInteraction(key));
    return target.screen === one ? from === other : from === one;
  });
