import type { Sight } from '../../roles/sight.ts';

export type EvidenceKind = 'name' | 'menu' | 'brand' | 'home' | 'form' | 'row' | 'sequence';

/** Something that speaks for an element leading to a screen. */
export interface Evidence {
  readonly kind: EvidenceKind;
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
  /** The same as they are written, each as one word; those of headings apart. */
  readonly asWritten: { readonly names: ReadonlySet<string>; readonly headings: ReadonlySet<string> };
}

export interface Pressed {
  readonly sight: Sight;
  readonly screen: string;
  readonly label: string;
  /** What the card that it stands in is called, where its own label says only that one goes on. */
  readonly about?: string;
  /** Of the label, or of what that card is called. */
  readonly words: readonly string[];
  /** What has the words, as it is written, as one word; empty for none. */
  readonly asWritten: string;
  /** The bar or list of links that it stands in with others. */
  readonly menu: Sight | null;
  /** Whether it is marked as where one is. */
  readonly isCurrent: boolean;
}

/** The same for all elements that say the same. */
export const labelKey = ({
  words,
  asWritten,
  sight,
}: Pick<Pressed, 'words' | 'asWritten' | 'sight'>): string =>
  asWritten || words.join(' ') || `unnamed ${sight.element.key}`;
