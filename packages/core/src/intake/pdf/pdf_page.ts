/** A page of a PDF as plain data: what crosses from where it was parsed. Lengths in px, y downwards. */
export interface PdfPage {
  readonly width: number;
  readonly height: number;
  readonly texts: readonly PdfText[];
  readonly shapes: readonly PdfShape[];
  readonly pictures: readonly PdfPicture[];
  /** What the page paints and a screen cannot show, in words, with how often. */
  readonly leftOut: Readonly<Record<string, number>>;
}

export interface PdfText {
  readonly text: string;
  /** The start of the baseline. */
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly size: number;
  readonly family: string;
  readonly isBold: boolean;
  readonly isItalic: boolean;
  readonly color: string;
  /** Place in the order in which the page is painted. */
  readonly order: number;
}

export interface PdfShape {
  /** Path data as in SVG. */
  readonly path: string;
  readonly fill: string | null;
  readonly stroke: string | null;
  readonly strokeWidth: number;
  readonly isEvenOdd: boolean;
  readonly opacity: number;
  readonly order: number;
}

export interface PdfPicture {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  /** The picture as PNG. */
  readonly png: Uint8Array;
  readonly order: number;
}
