import type { Box } from '../model/design.ts';
import { grouped } from '../json/grouped.ts';

/** Where the Tab key stops, as it is read out there. */
export interface HeardStop {
  readonly name: string;
  readonly role: string;
  /** In px of the page. */
  readonly box: Box;
  /** Whether one sees that the focus is there. */
  readonly isSeen: boolean;
}

export interface HeardHeading {
  readonly level: number;
  readonly says: string;
  readonly box: Box;
}

export interface HeardLandmark {
  readonly role: string;
  readonly name: string;
  readonly box: Box;
}

/** The contrast of a text with what is behind it while something is done with it (WCAG 2.2, 1.4.3). */
export interface HeardContrast {
  readonly says: string;
  readonly state: 'focus' | 'hover';
  readonly ratio: number;
  /** What a text of this size needs. */
  readonly least: number;
  readonly box: Box;
}

/** A rule of axe-core that does not hold. */
export interface HeardRule {
  readonly id: string;
  readonly impact: HeardWeight;
  readonly says: string;
  readonly places: readonly HeardPlace[];
}

export interface HeardPlace {
  readonly says: string;
  readonly box: Box;
}

/** What a page is to those who cannot see it, or use no pointer. */
export interface HeardPage {
  readonly rules: readonly HeardRule[];
  /** In the order in which the Tab key comes to them. */
  readonly stops: readonly HeardStop[];
  /** Whether the Tab key goes around among some of them and never comes to others. */
  readonly isTrapped: boolean;
  readonly headings: readonly HeardHeading[];
  readonly landmarks: readonly HeardLandmark[];
  readonly contrasts: readonly HeardContrast[];
}

export const HEARD_WEIGHTS = ['critical', 'serious', 'moderate', 'minor'] as const;
export type HeardWeight = (typeof HEARD_WEIGHTS)[number];

/** Something that keeps people from using a page. */
export interface HeardFinding {
  /** Stable for the kind of thing that it is. */
  readonly id: string;
  readonly weight: HeardWeight;
  readonly says: string;
  readonly places: readonly HeardPlace[];
}

/** Whether it keeps people from what they came for. */
export const isGrave = ({ weight }: Pick<HeardFinding, 'weight'>): boolean =>
  weight === 'critical' || weight === 'serious';

/** Px by which a stop stands higher than the one before for the order to jump back. */
const JUMP = 24;

/** What is wrong with a page as it is read out and gone through by keys, the gravest first. */
export function heardFindings(page: HeardPage): HeardFinding[] {
  const found = [
    ...page.rules.map(({ id, impact, says, places }): HeardFinding => ({ id, weight: impact, says, places })),
    ...trap(page),
    ...unseen(page),
    ...jumps(page),
    ...headings(page),
    ...contrasts(page),
  ];
  const weightOf = ({ weight }: HeardFinding): number => HEARD_WEIGHTS.indexOf(weight);
  return found.sort((a, b) => weightOf(a) - weightOf(b) || b.places.length - a.places.length);
}

const placeOf = ({ name, role, box }: HeardStop): HeardPlace => ({ says: name || role, box });

function trap({ isTrapped, stops }: HeardPage): HeardFinding[] {
  const last = stops.at(-1);
  return isTrapped && last
    ? [
        {
          id: 'focus-trap',
          weight: 'critical',
          says: 'The Tab key goes around here and never comes to what follows',
          places: [placeOf(last)],
        },
      ]
    : [];
}

function unseen({ stops }: HeardPage): HeardFinding[] {
  const places = stops.filter(({ isSeen }) => !isSeen).map(placeOf);
  return places.length
    ? [{ id: 'focus-unseen', weight: 'serious', says: 'Nothing shows that the focus is there', places }]
    : [];
}

function jumps({ stops }: HeardPage): HeardFinding[] {
  const places = stops.flatMap((stop, i): HeardPlace[] => {
    const before = stops[i - 1];
    if (!before) return [];
    const isAbove = stop.box.y + stop.box.height <= before.box.y - JUMP;
    // The next column begins at its top.
    const isBeside = stop.box.x >= before.box.x + before.box.width;
    return isAbove && !isBeside ? [placeOf(stop)] : [];
  });
  return places.length
    ? [{ id: 'focus-order', weight: 'moderate', says: 'The Tab key jumps back up to it', places }]
    : [];
}

function headings({ headings: all }: HeardPage): HeardFinding[] {
  const found: HeardFinding[] = [];
  const first = all.filter(({ level }) => level === 1);
  const put = (id: string, says: string, places: readonly HeardHeading[]): void => {
    if (places.length)
      found.push({
        id,
        weight: 'moderate',
        says,
        places: places.map((heading) => ({ says: heading.says, box: heading.box })),
      });
  };
  if (first.length > 1) put('headings-first', `${String(first.length)} headings are of level 1`, first);
  const skipped = all.filter(({ level }, i) => i > 0 && level > all[i - 1].level + 1);
  for (const [step, places] of grouped(skipped, ({ level }) => String(level)))
    put(
      `headings-skip-${step}`,
      `A heading of level ${step} follows one that is more than a level above`,
      places,
    );
  return found;
}

function contrasts({ contrasts: all }: HeardPage): HeardFinding[] {
  const low = all.filter(({ ratio, least }) => ratio < least);
  return [...grouped(low, ({ state }) => state)].map(([state, group]): HeardFinding => ({
    id: `contrast-${state}`,
    weight: 'serious',
    says: `Too little contrast ${state === 'hover' ? 'under the pointer' : 'with the focus'}: ${Math.min(...group.map(({ ratio }) => ratio)).toFixed(1)} : 1, and ${String(Math.max(...group.map(({ least }) => least)))} : 1 is needed`,
    places: group.map(({ says, box }) => ({ says, box })),
  }));
}
