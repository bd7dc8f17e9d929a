import { pressablesOf } from '../links/pressable.ts';
import type { Screen } from '../model/design.ts';
import { recordName } from '../model/names.ts';
import { hasParent, type Sight, sightOf } from '../roles/sight.ts';
import type { ActionProposal } from './actions.ts';
import type { BindingProposal } from './bindings.ts';
import type { CollectionProposal } from './collections.ts';
import { holdsWords } from './figures.ts';
import { choicesOf } from './value_types.ts';

/** What a control says of the record that it stands with. */
export interface Mark {
  /** What the collection is called. */
  readonly of: string;
  readonly field: string;
  readonly says: string;
}

const LONGEST_LABEL = 40;

/**
 * Controls that say of the record of their row, or of their screen, what a field of it can be: `Mark as back`, where its state can
 * be `Back`.
 * @param bindings what screens show of one record
 */
export function findMarks(
  screens: readonly Screen[],
  collections: readonly CollectionProposal[],
  bindings: readonly BindingProposal[],
): ActionProposal[] {
  const rows = new Map(
    collections.flatMap((one) => one.places.flatMap((place) => place.rows.map((row) => [row, one] as const))),
  );
  return screens.flatMap((screen): ActionProposal[] => {
    const shown = bindings.find(({ screen: key, shows }) => key === screen.key && /^\w+\.\w+$/.test(shows));
    const ofScreen = collections.find(({ name }) => recordName(name) === shown?.shows.split('.')[0]);
    const { byKey } = sightOf(screen);
    return pressablesOf(screen).flatMap(({ element, label }): ActionProposal[] => {
      const sight = byKey.get(element.key);
      if (!sight || element.hidden || label.length > LONGEST_LABEL || leads(sight)) return [];
      const collection = rowAround(sight, rows) ?? ofScreen;
      const mark = collection && markIn(label, collection);
      if (!mark) return [];
      return [
        {
          screen: screen.key,
          element: element.key,
          label,
          does: 'change',
          confidence: 0.78,
          reason: `it says “${mark.says}”, which ${mark.field} of ${mark.of} can be`,
          mark,
        },
      ];
    });
  });
}

const leads = ({ element: { tag, attributes } }: Sight): boolean =>
  tag === 'a' && /^[^#]/.test(attributes?.href?.trim() ?? '');

function rowAround(
  sight: Sight,
  rows: ReadonlyMap<string, CollectionProposal>,
): CollectionProposal | undefined {
  let found: CollectionProposal | undefined;
  hasParent(sight, ({ element }) => (found = rows.get(element.key)) !== undefined);
  return found;
}

/** The longest of all that fields can say that a label says, and something besides. */
function markIn(label: string, { name, fields, places }: CollectionProposal): Mark | null {
  const plain = label.trim().toLowerCase();
  const all = fields
    .filter(({ type }) => type === 'one-of')
    .flatMap(({ name: field }) =>
      choicesOf(places.flatMap(({ records }) => records.map((record) => record[field] ?? ''))).map(
        (says): Mark => ({ of: name, field, says }),
      ),
    )
    .filter(({ says }) => says.toLowerCase() !== plain && holdsWords(label, says));
  return all.sort((a, b) => b.says.length - a.says.length)[0] ?? null;
}
