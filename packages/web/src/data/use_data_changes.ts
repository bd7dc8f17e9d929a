import {
  type ActionProposal,
  all,
  applyChange,
  type BindingProposal,
  type Change,
  type CollectionProposal,
  type DataProposals,
  findDisclosures,
  type FormProposal,
  makeBindings,
  makeForms,
  makeWork,
  putCollection,
  putRefused,
  screenName,
  takeCollection,
  uniqueName,
} from '@tovel/core';
import { useProject } from '../project/context';
import type { Shown } from './CollectionShown';

/**
 * What can be done with what was found behind the screens, each as one step.
 * @param found null as long as it is looked for: nothing can be made of it
 * @param choose shows a collection, by its id
 */
export function useDataChanges(found: DataProposals | null, choose: (id: string) => void) {
  const project = useProject();
  const { app, design, drawn, session } = project;
  const made = (change: Change | null, one: string, several: string, count: number): void => {
    if (change) session.change(count === 1 ? one : several, change);
  };
  return {
    makeWork(chosen: readonly ActionProposal[]) {
      if (!found) return;
      const work = makeWork({ design, app }, found, chosen, drawn.screens.flatMap(findDisclosures));
      const count = work.made.length;
      made(work.change, `Make ${work.made[0]?.action.label} work`, `Make ${count} controls work`, count);
    },
    letCount(chosen: readonly BindingProposal[]) {
      if (!found) return;
      const bound = makeBindings({ design, app }, found, chosen);
      const count = bound.made.length;
      made(bound.change, 'Let a text say what is so', `Let ${count} texts say what is so`, count);
    },
    makeForms(chosen: readonly FormProposal[]) {
      if (!found) return;
      const forms = makeForms({ design, app }, found, chosen);
      const count = forms.made.length;
      const screen = chosen.length ? screenName(project, chosen[0].screen) : '';
      made(forms.change, `Make the form of ${screen} work`, `Make ${count} forms work`, count);
    },
    take(taken: readonly CollectionProposal[]) {
      let now = { design, app };
      const ids: string[] = [];
      const changes = taken.map((proposal) => {
        const { id, change } = takeCollection(now, proposal);
        now = { design, app: applyChange(now.app, change) };
        ids.push(id);
        return change;
      });
      const words = taken.length === 1 ? `Take ${taken[0].name}` : `Take ${taken.length} collections`;
      session.change(words, all(changes));
      if (taken.length === 1) choose(ids[0]);
    },
    refuse: ({ id, collection }: Shown) => session.change(`Refuse ${collection.name}`, putRefused(id, true)),
    addCollection() {
      const isTaken = (one: string): boolean =>
        app.collections[one] !== undefined || Object.values(app.collections).some(({ name }) => name === one);
      const name = uniqueName('records', isTaken, '');
      const fields = [{ name: 'name', type: 'text' as const }];
      session.change('Add a collection', putCollection(name, { name, fields, rows: [] }));
      choose(name);
    },
  };
}
