import { kebabCase } from '../../model/names.ts';
import type { Project } from '../../model/project.ts';
import { typeExtension } from '../asset.ts';
import { type EmittedScreen, isElement, type MarkupElement } from './markup.ts';

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

/** Readable, and different for pictures of the same name: `hedge-trimmer.3fa9.png`. */
export function assetFile(project: Project, hash: string): string {
  const asset = project.design.assets.find((a) => a.hash === hash);
  const name =
    kebabCase(
      (asset?.file ?? '')
        .replace(/^.*\//, '')
        .replace(/\.[^.]*$/, '')
        .replace(/#.*$/, ''),
    ) || 'picture';
  return `${name}-${hash.slice(0, 6)}${typeExtension(asset?.type ?? '')}`;
}
