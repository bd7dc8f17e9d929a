import type { Sight } from '../../roles/sight.ts';

/** Something that speaks for an element leading to a screen. */
export interface Evidence {
  readonly to: string;
  /** How sure it is by itself, 0 to 1. */
  readonly strength: number;
  readonly reason: string;
  /** It leads back to where one came from, of which the screen is the likeliest. */
  readonly isBack?: true;
}

/** What a screen is called, by where that is said. */
export interface Names {
  readonly title: readonly string[];
  readonly file: readonly string[];
  readonly headings: readonly (readonly string[])[];
}

export interface Pressed {
  readonly sight: Sight;
  readonly screen: string;
  readonly label: string;
  readonly words: readonly string[];
  /** Whether it stands in a bar or a list of links. */
  readonly isMenu: boolean;
  /** Whether it is marked as where one is. */
  readonly isCurrent: boolean;
}

/** The same for all elements that say the same. */
export const labelKey = ({ words, sight }: Pick<Pressed, 'words' | 'sight'>): string =>
  words.join(' ') || `unnamed ${sight.element.key}`;
