import type { Box, Declarations } from '../../model/design.ts';

/** What a browser says of a laid-out page; plain data that crosses from the frame that was read. */
export interface PageReading {
  readonly width: number;
  readonly height: number;
  readonly body: ReadElement;
  /** What shows behind the page: of the root element or the body. */
  readonly canvas: Declarations;
  /** Elements that are not shown at any width. */
  readonly hidden: readonly HiddenElement[];
}

export interface HiddenElement {
  readonly path: string;
  readonly tag: string;
  readonly label: string;
  /** Whether it lay over the whole page, and was taken away for what is behind it. */
  readonly covered?: boolean;
  /** Whether it is shown all the same, as a script of the page would. */
  readonly isAwaited?: boolean;
}

/** What the script of a press names in quotes: the ids of what it opens or closes are often among that. */
export const CALLS_ATTRIBUTE = 'data-tovel-calls';

export interface ReadElement {
  readonly path: string;
  /** The element that it is written as. */
  readonly tag: string;
  /** Its tag in the page, where that is another. */
  readonly was?: string;
  readonly attributes: Readonly<Record<string, string>>;
  readonly box: Box;
  readonly base: Declarations;
  readonly at?: Readonly<Record<string, Declarations>>;
  readonly hover?: Declarations;
  readonly focus?: Declarations;
  readonly before?: Declarations;
  readonly after?: Declarations;
  readonly placeholder?: Declarations;
  /** Parts of a form control that are drawn otherwise, by their pseudo-elements. */
  readonly parts?: Readonly<Record<string, Declarations>>;
  /** Of what narrow windows hide, how it looks there where something opens it. */
  readonly open?: Declarations;
  /** Not shown at any width; what is in it was read all the same. */
  readonly isHidden?: boolean;
  /** Where the element's own text, or the content before it, is set in what may be an icon font. */
  readonly iconFont?: {
    readonly family: string;
    readonly weight: string;
    /** The content before the element; null when it is its text. */
    readonly content: string | null;
  };
  /** Text as a string; whitespace that shows is kept as a single space. */
  readonly children: readonly (ReadElement | string)[];
}

/** How pages are read: at which widths and heights, in CSS px. The first width is the page's own. */
export interface ReadingPlan {
  readonly widths: readonly number[];
  readonly height: number;
}

export const defaultPlan: ReadingPlan = { widths: [1280, 768, 390], height: 800 };
