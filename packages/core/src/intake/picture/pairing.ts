import { baseName, folderOf, type InputFile } from '../files.ts';
import { sizeOfPicture } from './pixels.ts';

/** Which picture shows how a page or drawing should look. */
export interface Pairing {
  readonly referenceOf: ReadonlyMap<string, InputFile>;
}

/** A picture smaller than this, in px, either way is no screen. */
const SCREEN_SIZE = { width: 240, height: 320 };

/**
 * Pairs designs with pictures: those with the same base name, else the only picture beside the only design of a
 * folder, as long as no page shows it.
 * @param texts everything in which a picture could be named.
 */
export function pairPictures(
  designs: readonly InputFile[],
  pictures: readonly InputFile[],
  texts: string,
): Pairing {
  const referenceOf = new Map<string, InputFile>();
  const taken = new Set<InputFile>();
  const isShown = (picture: InputFile): boolean => texts.includes(picture.path.replace(/^.*\//, ''));
  const fitting = pictures.filter((picture) => isLarge(picture) && !isShown(picture));
  const pair = (design: InputFile, picture: InputFile | undefined): void => {
    if (!picture || taken.has(picture)) return;
    referenceOf.set(design.path, picture);
    taken.add(picture);
  };
  const nameOf = (file: InputFile): string => baseName(file.path).toLowerCase();
  for (const design of designs) {
    const same = fitting.filter((picture) => nameOf(picture) === nameOf(design));
    pair(
      design,
      same.find((picture) => folderOf(picture.path) === folderOf(design.path)) ??
        (same.length === 1 ? same[0] : undefined),
    );
  }
  for (const design of designs) {
    if (referenceOf.has(design.path)) continue;
    const beside = (file: InputFile): boolean => folderOf(file.path) === folderOf(design.path);
    const pages = designs.filter(beside);
    const free = fitting.filter((picture) => beside(picture) && !taken.has(picture));
    if (pages.length === 1 && free.length === 1) pair(design, free[0]);
  }
  return { referenceOf };
}

/** Whether a picture is a screen of its own: not one that a design shows or is compared with, nor one kept for use. */
export function isScreenPicture(
  picture: InputFile,
  designs: readonly InputFile[],
  pairing: Pairing,
): boolean {
  if (!/\.(png|jpe?g|webp)$/i.test(picture.path) || !isLarge(picture)) return false;
  if ([...pairing.referenceOf.values()].includes(picture)) return false;
  if (!designs.length) return true;
  // Beside pages and drawings, in a folder without any of them, lie the pictures that they show.
  return designs.some(
    (design) => folderOf(design.path) === folderOf(picture.path) && /\.(ora|pdf)$/i.test(design.path),
  );
}

function isLarge(picture: InputFile): boolean {
  const size = sizeOfPicture(picture.bytes);
  return size !== null && size.width >= SCREEN_SIZE.width && size.height >= SCREEN_SIZE.height;
}
