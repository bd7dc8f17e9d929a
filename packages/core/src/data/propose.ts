import type { Design, Screen } from '../model/design.ts';
import { type ActionProposal, findActions } from './actions.ts';
import { type BindingProposal, findBindings } from './bindings.ts';
import { choicesOf } from './choices.ts';
import { type CollectionProposal, findCollections } from './collections.ts';
import { findForms, type FormProposal } from './forms.ts';
import { findMarks } from './marks.ts';

/** All that stands behind the screens, as proposals. */
export interface DataProposals {
  readonly collections: readonly CollectionProposal[];
  readonly forms: readonly FormProposal[];
  readonly actions: readonly ActionProposal[];
  readonly bindings: readonly BindingProposal[];
}

const known = new WeakMap<Design['screens'], DataProposals>();

/** What records, forms, actions and counters the screens of a design show. Kept with its screens; linear in the elements. */
export function proposeData({ screens }: Pick<Design, 'screens'>): DataProposals {
  let found = known.get(screens);
  if (!found) {
    const collections = findCollections(screens);
    const forms = screens.map(findForms);
    const bindings = findBindings(screens, collections);
    const marks = new Map(findMarks(screens, collections, bindings).map((one) => [one.element, one]));
    found = {
      collections,
      forms: forms.flat(),
      actions: screens.flatMap((screen, i) =>
        withMarks(screen.key, filtering(screen, findActions(screen, forms[i]), collections), marks),
      ),
      bindings,
    };
    known.set(screens, found);
  }
  return found;
}

/** What controls of a screen do, with what they say of records: of two the surer one. */
function withMarks(
  screen: string,
  actions: readonly ActionProposal[],
  marks: ReadonlyMap<string, ActionProposal>,
): ActionProposal[] {
  const known = new Set(actions.map(({ element }) => element));
  const others = [...marks.values()].filter((mark) => mark.screen === screen && !known.has(mark.element));
  return [
    ...actions.map((action) => {
      const mark = marks.get(action.element);
      return mark && (mark.confidence > action.confidence || action.does === 'change') ? mark : action;
    }),
    ...others,
  ];
}

/** Says everything, and is no value of a field. */
const ALL = /^(all|any|every(thing| one)?)\b/i;

/** What is one of several filters where most of them are what a field of a list of its screen says. */
function filtering(
  screen: Screen,
  actions: readonly ActionProposal[],
  collections: readonly CollectionProposal[],
): readonly ActionProposal[] {
  if (!actions.some(({ does }) => does === 'choose')) return actions;
  const choices = choicesOf(screen);
  const places = collections.flatMap((one) => one.places.filter((place) => place.screen === screen.key));
  return actions.map((action) => {
    const choice = action.does === 'choose' ? choices.get(action.element) : undefined;
    const labels = [...(choice?.all.values() ?? [])].filter((label) => !ALL.test(label));
    const isField = places.some(({ records, shows }) =>
      Object.keys(shows).some((field) => {
        const said = new Set(records.map((record) => record[field]?.trim().toLowerCase()));
        const same = labels.filter((label) => said.has(label.trim().toLowerCase())).length;
        return same > 1 && same * 2 > labels.length;
      }),
    );
    return isField
      ? {
          ...action,
          does: 'filter',
          confidence: 0.82,
          reason: 'it is one of several that rows of its screen say',
        }
      : action;
  });
}
