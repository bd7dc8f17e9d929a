import { grouped } from '../../json/grouped.ts';
import { kebabCase, uniqueName } from '../../model/names.ts';
import type { Project } from '../../model/project.ts';
import { typeExtension } from '../asset.ts';
import { type EmittedScreen, isElement, type MarkupElement } from './markup.ts';
import { onceFor } from '../../json/once_for.ts';

/** Pictures that a screen shows, in its elements and in its styles. */
export function assetsOf(screen: EmittedScreen): string[] {
  const hashes = new Set<string>();
  const visit = (node: MarkupElement): void => {
    if (node.asset) hashes.add(node.asset);
    for (const step of [
      node.link,
      ...(node.acts ?? []).flatMap((act) => act.ways.flatMap((way) => way.steps)),
    ])
      if (step?.kind === 'file') hashes.add(step.asset);
    for (const child of node.children) if (isElement(child)) visit(child);
  };
  visit(screen.root);
  for (const [hash] of JSON.stringify(screen.rules).matchAll(/[0-9a-f]{64}/g)) hashes.add(hash);
  return [...hashes];
}

type Asset = Project['design']['assets'][number];

/**
 * The file of a picture, after the one that it came in as: `hedge-trimmer.png`; of several that are called the same the
 * folder is said, too, and else they are numbered in the order in which they came.
 */
export function assetFile({ design: { assets } }: Project, hash: string): string {
  return assetFiles(assets).get(hash) ?? `picture-${hash.slice(0, 6)}`;
}

const assetFiles = onceFor((assets: readonly Asset[]): ReadonlyMap<string, string> => {
  const named = new Map<string, string>();
  const taken = new Set<string>();
  const parts = assets.map(({ hash, file, type }) => ({ hash, ...partsOf(file), type: typeExtension(type) }));
  const sharing = grouped(parts, ({ name, type }) => `${name}${type}`);
  for (const { hash, name, folder, type } of parts) {
    if (named.has(hash)) continue;
    const isAlone = sharing.get(`${name}${type}`)!.length === 1;
    const wanted = isAlone || !folder || name === NAMELESS ? name : `${folder}-${name}`;
    const free = uniqueName(wanted, (candidate) => taken.has(`${candidate}${type}`));
    taken.add(`${free}${type}`);
    named.set(hash, `${free}${type}`);
  }
  return named;
});

const NAMELESS = 'picture';

/** What a file is called, and the folder that it is in; what is written within another file has no name of its own. */
function partsOf(file: string): { readonly name: string; readonly folder: string } {
  const [name, folder = ''] = file
    .split('/')
    .reverse()
    .map((part) => kebabCase(part.replace(/\.[^.]*$/, '')));
  return file.includes('#') || !name ? { name: NAMELESS, folder } : { name, folder };
}
