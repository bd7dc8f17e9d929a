import type { AssetRef } from '../model/design.ts';
import type { PageReading, ReadingPlan } from './html/reading.ts';
import type { IconLibrary, PackageAddress, ShippedSheet } from './html/outside_packages.ts';
import type { UtilityPlan } from './html/utilities.ts';
import type { WebFont } from './html/web_fonts.ts';
import type { PaintedPage } from './painted/painted_page.ts';
import type { Pixels, TextLine } from './picture/pixels.ts';

/** A face of a font that Tovel ships. */
export interface ShippedFace {
  readonly weight: string;
  readonly style: string;
  readonly unicodeRange?: string;
  readonly type: string;
  readonly file: string;
  readonly bytes: Uint8Array;
}

/**
 * What intake needs from where it runs: a browser that lays out a page, addresses under which it may show assets, and
 * programs that are too large or too bound to a platform for the core. What a host lacks is said in a notice.
 */
export interface IntakeHost {
  /** How many pages more may be given to be read while one is; none where not said. */
  readonly readsAhead?: number;
  /** Lays out a page in a frame without scripts and reads it. Rejects when that takes too long. */
  readPage(page: { readonly html: string }, plan: ReadingPlan): Promise<PageReading>;
  /** An address that the frame may show an asset under. */
  addressOf(asset: AssetRef, bytes: Uint8Array): string;
  /** The style sheet that the page's utility classes amount to. */
  compileUtilities?(plan: UtilityPlan): Promise<string>;
  /** The faces of a family, where Tovel ships it; none where not. */
  shippedFont?(font: WebFont): Promise<readonly ShippedFace[]>;
  /** What stands for a style sheet of another host, where a package that has it comes with Tovel; null where none does. */
  shippedSheet?(address: PackageAddress): Promise<ShippedSheet | null>;
  /** Drawings of a library of icons that comes with Tovel, as SVG by their names. */
  shippedIcons?(library: IconLibrary, names: readonly string[]): Promise<Readonly<Record<string, string>>>;
  /** Rejects for what is not a picture. */
  decodePicture?(bytes: Uint8Array, type: string): Promise<Pixels>;
  /**
   * The lines of text in a picture.
   * @param isPlain whether all of it is dark on light
   */
  readText?(pixels: Pixels, isPlain?: boolean): Promise<readonly TextLine[]>;
  /** Rejects for what is not a PDF, or is locked. */
  readPdf?(bytes: Uint8Array): Promise<readonly PaintedPage[]>;
}
