import type { DisclosureKind } from '../../model/app.ts';
import { kebabCase, uniqueCodeName, uniqueName } from '../../model/names.ts';
import { grouped } from '../../json/grouped.ts';
import { findElement } from '../../model/places.ts';
import { elementsByKey, hostOf, type Project, screensByKey } from '../../model/project.ts';
import type { DisclosedPart } from './markup.ts';

/** A part that is opened and closed, with what it is called. */
export interface EmittedPart extends DisclosedPart {
  readonly id: string;
  readonly name: string;
  /** What those share of which only one is open. */
  readonly among?: string;
}

/** What parts of which one is shown are called together. */
const TOGETHER: Readonly<Record<DisclosureKind, string>> = {
  panel: 'tabs',
  slide: 'slides',
  section: 'sections',
  menu: 'menus',
  dialog: 'dialogs',
};

/**
 * The parts of an app that open and close, by their elements. Ids are made of names, so that the same bar on many screens has
 * the same ones; on one screen no two are the same.
 * @param project settled
 */
export function emittedParts(project: Project): ReadonlyMap<string, EmittedPart> {
  const { app, design } = project;
  const there = Object.entries(app.disclosures).filter(([key]) => findElement(design, key));
  const screens = screensByKey(design);
  const made = new Map<string, EmittedPart>();
  for (const [host, unordered] of grouped(there, ([key]) => hostOf(project, key))) {
    const screen = screens.get(host);
    const order = screen && new Map([...elementsByKey(screen).keys()].map((key, i) => [key, i]));
    const parts = unordered.toSorted(([a], [b]) => (order?.get(a) ?? 0) - (order?.get(b) ?? 0));
    const ids = new Set<string>();
    const named = parts.map(([key, disclosure]) => {
      const { name, kind } = disclosure;
      const words = kebabCase(name.slice(0, 40)).replace(/^(?=\d)/, 'part-') || 'part';
      const id = uniqueName(words.split('-').includes(kind) ? words : `${words}-${kind}`, (one) =>
        ids.has(one),
      );
      ids.add(id);
      return { key, disclosure, id };
    });
    const names = new Set<string>();
    const choices = new Map(
      [...grouped(named, ({ disclosure }) => disclosure.among ?? '')].flatMap(([among, members]) => {
        if (!among) return [];
        const name = uniqueCodeName(`${TOGETHER[members[0].disclosure.kind]}Choice`, 'choice', (one) =>
          names.has(one),
        );
        names.add(name);
        const first = members.find(({ disclosure }) => disclosure.open) ?? members[0];
        return [[among, { name, first: first.id, all: members.map(({ id }) => id) }] as const];
      }),
    );
    for (const { key, id, disclosure } of named) {
      const { name, kind, among, open, below } = disclosure;
      const choice = among === undefined ? undefined : choices.get(among);
      made.set(key, {
        id,
        name,
        kind,
        isOpen: choice ? choice.first === id : open === true,
        ...(below === undefined ? {} : { isNarrow: true as const }),
        ...(choice ? { choice, among } : {}),
      });
    }
  }
  return made;
}
