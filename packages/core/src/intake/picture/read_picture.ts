import type { AssetRef, Element, FoundRegion, Notice, Screen } from '../../model/design.ts';
import { sentenceCase } from '../../model/names.ts';
import { baseName, type InputFile } from '../files.ts';
import type { IntakeHost } from '../host.ts';
import { limits } from '../limits.ts';
import { findRegions } from './find_regions.ts';
import { sizeOfPicture, type TextLine } from './pixels.ts';

/**
 * Makes a screen that shows a picture, with what was found in it to be taken as elements.
 * @throws Error for what is not a picture or is too large to be drawn.
 */
export async function readPicture(
  asset: AssetRef,
  file: InputFile,
  screenKey: string,
  host: IntakeHost,
): Promise<{ screen: Screen; notices: readonly Notice[] }> {
  const size = sizeOfPicture(file.bytes);
  if (!size || !size.width || !size.height) throw new Error('it is not a complete PNG, JPEG or WebP picture');
  if (size.width * size.height > limits.pixels)
    throw new Error(
      `it has ${size.width} × ${size.height} pixels; at most ${limits.pixels / 1e6} million are read`,
    );
  const notices: Notice[] = [];
  const regions: FoundRegion[] = [];
  try {
    if (host.decodePicture) {
      const pixels = await host.decodePicture(file.bytes, asset.type);
      let lines: readonly TextLine[] = [];
      try {
        lines = (await host.readText?.(pixels)) ?? [];
      } catch (error) {
        notices.push({
          level: 'warning',
          code: 'text-unread',
          file: file.path,
          message: `The text in this picture could not be read: ${(error as Error).message}`,
        });
      }
      regions.push(...findRegions(pixels, lines));
    }
  } catch (error) {
    throw new Error(`the picture cannot be decoded (${(error as Error).message})`);
  }
  const name = sentenceCase(baseName(file.path));
  const source = { file: file.path, path: '' };
  const picture: Element = {
    key: `${screenKey}:picture`,
    kind: 'image',
    name,
    tag: 'img',
    box: { x: 0, y: 0, ...size },
    style: { base: { display: 'block', width: '100%', height: 'auto' } },
    attributes: { alt: name },
    asset: asset.hash,
    children: [],
    source: { file: file.path, path: '0' },
  };
  const root: Element = {
    key: `${screenKey}:`,
    kind: 'box',
    name,
    tag: 'div',
    box: { x: 0, y: 0, ...size },
    style: {
      base: {
        position: 'relative',
        'max-width': `${size.width}px`,
        'margin-left': 'auto',
        'margin-right': 'auto',
      },
    },
    children: [picture],
    source,
  };
  return {
    screen: {
      key: screenKey,
      name,
      source,
      ...size,
      root,
      use: 'screen',
      ...(regions.length ? { regions } : {}),
    },
    notices,
  };
}
