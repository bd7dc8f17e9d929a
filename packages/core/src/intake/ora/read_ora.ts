import { unzipSync } from 'fflate';
import type { Box, Element, Notice, Screen } from '../../model/design.ts';
import { sentenceCase } from '../../model/names.ts';
import { union } from '../../layout/placed.ts';
import { baseName, type InputFile } from '../files.ts';
import { limits, megabytes } from '../limits.ts';
import { sizeOfPicture } from '../picture/pixels.ts';
import { childElements, parseXml, type XmlElement, XmlError } from '../svg/xml.ts';

export interface OraInput {
  readonly file: string;
  readonly bytes: Uint8Array;
  readonly screenKey: string;
  /** Keeps a layer's picture; returns its hash. */
  readonly keep: (layer: InputFile) => string;
}

/**
 * Reads an OpenRaster file (baseline 0.0.5): stacks become containers and layers pictures, each where it was drawn.
 * Layers that are hidden in the file come along hidden.
 */
export function readOra(input: OraInput): { screen: Screen | null; notices: Notice[] } {
  const notices: Notice[] = [];
  const say = (level: Notice['level'], code: string, message: string, path?: string): void =>
    void notices.push({ level, code, file: input.file, message, ...(path ? { path } : {}) });
  const fail = (message: string): { screen: null; notices: Notice[] } => {
    say('error', 'ora-unreadable', message);
    return { screen: null, notices };
  };
  const entries = unpackLayers(input.bytes);
  if (typeof entries === 'string') return fail(entries);
  const stackFile = entries['stack.xml'];
  if (!stackFile) return fail('The file holds no stack.xml, so it is not OpenRaster. Save it again as .ora.');
  let image: XmlElement;
  try {
    image = parseXml(new TextDecoder().decode(stackFile));
  } catch (error) {
    if (!(error instanceof XmlError)) throw error;
    return fail(`Its stack.xml is damaged: ${error.message}.`);
  }
  const number = (element: XmlElement, name: string, otherwise = 0): number => {
    const value = Number(element.attributes[name] ?? otherwise);
    return Number.isFinite(value) ? value : otherwise;
  };
  const [width, height] = [number(image, 'w'), number(image, 'h')];
  const top = childElements(image).find((child) => child.name === 'stack');
  if (image.name !== 'image' || !top || !(width > 0) || !(height > 0) || width * height > limits.pixels)
    return fail('Its stack.xml names no picture of a size that can be drawn.');

  const layerOf = (element: XmlElement, dx: number, dy: number): Element | null => {
    const path = element.path;
    const name = element.attributes.name?.trim() || (element.name === 'stack' ? 'Group' : 'Layer');
    const [x, y] = [dx + number(element, 'x'), dy + number(element, 'y')];
    const opacity = Math.min(1, Math.max(0, number(element, 'opacity', 1)));
    const isHidden = element.attributes.visibility === 'hidden' || opacity === 0;
    const common = {
      key: `${input.screenKey}:${path}`,
      name,
      source: { file: input.file, path },
      ...(isHidden ? { hidden: true } : {}),
    };
    if (isHidden) say('info', 'hidden-layer', `The hidden layer “${name}” was left out.`, path);
    const look = (box: Box): Element['style']['base'] => ({
      ...blending(element, name, say),
      ...(opacity < 1 && !isHidden ? { opacity: String(opacity) } : {}),
      ...place(box),
    });
    if (element.name === 'stack') {
      const children = drawn(element, x, y);
      if (!children.length) return null;
      const box = union(children.map((child) => child.box));
      return {
        ...common,
        kind: 'box',
        tag: 'div',
        box,
        style: { base: look(box) },
        children: children.map(within(box)),
      };
    }
    const source = element.attributes.src ?? '';
    const bytes = entries[source];
    const size = bytes && sizeOfPicture(bytes);
    if (!size) {
      say(
        'warning',
        'image-missing',
        `The picture of the layer “${name}” is missing or damaged; the layer was left out.`,
        path,
      );
      return null;
    }
    const box = { x, y, ...size };
    const asset = input.keep({ path: `${input.file}/${source}`, bytes });
    return {
      ...common,
      kind: 'image',
      tag: 'img',
      box,
      style: { base: look(box) },
      attributes: { alt: '' },
      asset,
      children: [],
    };
  };
  /** The file names the uppermost layer first; a page draws it last. */
  const drawn = (stack: XmlElement, dx: number, dy: number): Element[] =>
    childElements(stack)
      .filter((child) => child.name === 'stack' || child.name === 'layer')
      .map((child) => layerOf(child, dx, dy))
      .filter((child) => child !== null)
      .reverse();

  const children = drawn(top, number(top, 'x'), number(top, 'y'));
  if (!children.length) return fail('None of its layers can be drawn.');
  const name = sentenceCase(baseName(input.file));
  const source = { file: input.file, path: '' };
  const root: Element = {
    key: `${input.screenKey}:`,
    kind: 'box',
    name,
    tag: 'div',
    box: { x: 0, y: 0, width, height },
    style: {
      base: {
        position: 'relative',
        width: `${width}px`,
        'max-width': '100%',
        height: `${height}px`,
        'margin-left': 'auto',
        'margin-right': 'auto',
        'overflow-x': 'hidden',
        'overflow-y': 'hidden',
        'background-color': '#ffffff',
      },
    },
    children,
    source,
  };
  return { screen: { key: input.screenKey, name, source, width, height, root, use: 'screen' }, notices };
}

/** The stack and the layers of the archive, or why it cannot be unpacked. Previews of the whole are left packed. */
function unpackLayers(bytes: Uint8Array): Record<string, Uint8Array> | string {
  let total = 0;
  try {
    const entries = unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        if (name !== 'stack.xml' && !name.startsWith('data/')) return false;
        total += originalSize;
        if (total > limits.unpackedBytes)
          throw new RangeError(`it unpacks to more than ${megabytes(limits.unpackedBytes)}`);
        return true;
      },
    });
    return Object.assign(Object.create(null) as Record<string, Uint8Array>, entries);
  } catch (error) {
    return `The file cannot be unpacked (${(error as Error).message}). Save it again as .ora.`;
  }
}

const place = (box: Box): Record<string, string> => ({
  position: 'absolute',
  left: `${box.x}px`,
  top: `${box.y}px`,
  width: `${box.width}px`,
  height: `${box.height}px`,
});

/** Children are placed within their container, whose own place is known only when they are. */
const within =
  (outer: Box) =>
  (child: Element): Element => ({
    ...child,
    style: {
      ...child.style,
      base: { ...child.style.base, left: `${child.box.x - outer.x}px`, top: `${child.box.y - outer.y}px` },
    },
  });

/** Blend modes that CSS has, by what OpenRaster calls them. */
function blending(
  element: XmlElement,
  name: string,
  say: (level: Notice['level'], code: string, message: string, path?: string) => void,
): Record<string, string> {
  const op = element.attributes['composite-op'] ?? 'svg:src-over';
  if (op === 'svg:src-over') return {};
  const mode = op.replace(/^svg:/, '');
  if (
    /^(multiply|screen|overlay|darken|lighten|color-dodge|color-burn|hard-light|soft-light|difference|color|luminosity|hue|saturation)$/.test(
      mode,
    )
  )
    return { 'mix-blend-mode': mode };
  if (mode === 'plus') return { 'mix-blend-mode': 'plus-lighter' };
  say(
    'warning',
    'blend-dropped',
    `The layer “${name}” is blended by “${op}”, which a page cannot do; it is laid over plainly.`,
    element.path,
  );
  return {};
}
