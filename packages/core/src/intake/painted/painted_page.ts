import type { Box } from '../../model/design.ts';
import type { Matrix } from '../svg/matrix.ts';

/**
 * What a machine painted, thing by thing and without any structure: a page of a PDF, or a drawing that was made of one. Plain
 * data, since it crosses from where a file was parsed. Lengths in px, y downwards.
 */
export interface PaintedPage {
  readonly width: number;
  readonly height: number;
  /** In the order in which they are painted. */
  readonly items: readonly PaintedItem[];
  readonly links: readonly PaintedLink[];
  /** Whether a browser printed it. */
  readonly isPrinted?: boolean;
  /** What the page paints and a screen cannot show, in words, with how often. */
  readonly leftOut: Readonly<Record<string, number>>;
}

export type PaintedItem = PaintedShape | PaintedText | PaintedPicture;

interface Painted {
  /** What it shows through: all of these at once. */
  readonly clips: readonly Clip[];
  /** 0 to 1. */
  readonly opacity: number;
  /** What lets it through by how bright, or with pictures how opaque, it is. */
  readonly mask?: readonly PaintedItem[];
}

export interface Clip {
  /** Path data as in SVG. */
  readonly outline: string;
  readonly isEvenOdd: boolean;
}

export interface PaintedShape extends Painted {
  readonly kind: 'shape';
  /** Path data as in SVG. */
  readonly outline: string;
  readonly isEvenOdd: boolean;
  readonly fill: Paint | null;
  readonly stroke: Stroke | null;
  readonly letter?: PaintedLetter;
}

/** Of the outline of a letter: which outline it is, of which face and size, and where its baseline begins. */
export interface PaintedLetter {
  readonly id: string;
  readonly face: string;
  readonly x: number;
  readonly y: number;
  /** Which letter it is, where that was written beside it. */
  readonly char?: string;
  /** The size of its font in px, where that is known. */
  readonly size?: number;
}

export interface PaintedText extends Painted {
  readonly kind: 'text';
  readonly text: string;
  /** The start of the baseline. */
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly size: number;
  readonly family: string;
  readonly weight: number;
  readonly isItalic: boolean;
  readonly color: string;
}

export interface PaintedPicture extends Painted {
  readonly kind: 'picture';
  /** From a square of 1 by 1, its first row at the top, to where it stands. */
  readonly matrix: Matrix;
  /** The picture as PNG, or an asset of the project. */
  readonly png?: Uint8Array;
  readonly asset?: string;
}

/** A colour as CSS writes it, or colours that change along a line or outwards. */
export type Paint = string | Gradient;

export interface Gradient {
  readonly kind: 'linear' | 'radial';
  readonly stops: readonly (readonly [offset: number, color: string])[];
  readonly from: readonly [x: number, y: number];
  readonly to: readonly [x: number, y: number];
  /** Radii at both ends, of one that goes outwards. */
  readonly radii?: readonly [from: number, to: number];
  /** From where its points are given to the page. */
  readonly matrix: Matrix;
}

export interface Stroke {
  readonly color: string;
  readonly width: number;
  readonly isDashed: boolean;
}

/** A place that leads somewhere, as its file says. */
export interface PaintedLink {
  readonly box: Box;
  readonly href: string;
}
