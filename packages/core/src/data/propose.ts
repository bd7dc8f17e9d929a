import type { Design } from '../model/design.ts';
import { type ActionProposal, findActions } from './actions.ts';
import { type BindingProposal, findBindings } from './bindings.ts';
import { type CollectionProposal, findCollections } from './collections.ts';
import { findForms, type FormProposal } from './forms.ts';

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
    found = {
      collections,
      forms: forms.flat(),
      actions: screens.flatMap((screen, i) => findActions(screen, forms[i])),
      bindings: findBindings(screens, collections),
    };
    known.set(screens, found);
  }
  return found;
}
