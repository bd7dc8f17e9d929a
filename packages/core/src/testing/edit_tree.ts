import type { Element, Screen } from '../model/design.ts';
import { chance } from './chance.ts';

interface Node {
  /** The key that the element had before; null for one that was added. */
  readonly was: string | null;
  readonly element: Element;
  children: Node[];
}

/** A screen as it might come in the next round, and which element each of its keys stood for before. */
export interface EditedScreen {
  readonly screen: Screen;
  readonly was: ReadonlyMap<string, string | null>;
}

const WORDS = 'anchor bramble copper lantern meadow orchard timber willow'.split(' ');

/**
 * Edits a screen by chance: elements go, are added, move, change places with siblings, are wrapped, words change; and
 * all keys and paths are those of a file that is read anew.
 */
export function editScreen(screen: Screen, seed: number, edits = 4): EditedScreen {
  const random = chance(seed);
  const pick = <T>(from: readonly T[]): T => from[Math.floor(random() * from.length)];
  const nodeOf = (element: Element): Node => ({
    was: element.key,
    element,
    children: element.children.map(nodeOf),
  });
  const root = nodeOf(screen.root);
  const all = (): { node: Node; parent: Node }[] => {
    const found: { node: Node; parent: Node }[] = [];
    const visit = (parent: Node): void => {
      for (const node of parent.children) {
        found.push({ node, parent });
        visit(node);
      }
    };
    visit(root);
    return found;
  };
  const holds = (node: Node, other: Node): boolean =>
    node === other || node.children.some((child) => holds(child, other));
  const added = (node: Node): Node => ({
    was: null,
    element: {
      ...node.element,
      // What is added can be told from what it is a copy of.
      style: { base: { ...node.element.style.base, 'margin-top': '3px' } },
      box: { ...node.element.box, width: node.element.box.width * 0.7 },
      ...(node.element.text ? { text: pick(WORDS) } : {}),
    },
    children: node.children.map(added),
  });
  // What is added in the place of what goes could be taken for it by anybody.
  const grows = random() < 0.5;
  for (let i = 0; i < edits; i++) {
    const places = all();
    if (!places.length) break;
    const { node, parent } = pick(places);
    const at = parent.children.indexOf(node);
    const other = pick(places);
    switch (pick(['remove', 'add', 'move', 'swap', 'wrap', 'words'])) {
      case 'remove':
        if (node.children.length < 3 && !grows) parent.children.splice(at, 1);
        break;
      case 'add':
        if (node.children.length < 6 && grows)
          parent.children.splice(at + Math.round(random()), 0, added(node));
        break;
      case 'move':
        // What is all of its container takes that along in people's eyes.
        if (!holds(node, other.node) && other.node.element.kind === 'box' && parent.children.length > 1) {
          parent.children.splice(at, 1);
          other.node.children.splice(Math.floor(random() * (other.node.children.length + 1)), 0, node);
        }
        break;
      case 'swap': {
        const next = (at + 1) % parent.children.length;
        [parent.children[at], parent.children[next]] = [parent.children[next], parent.children[at]];
        break;
      }
      case 'wrap':
        parent.children[at] = {
          was: null,
          element: {
            ...node.element,
            kind: 'box',
            name: 'box',
            tag: 'div',
            text: undefined,
            style: { base: {} },
          },
          children: [node],
        };
        break;
      case 'words':
        if (node.element.text)
          Object.assign(node, { element: { ...node.element, text: `${node.element.text} ${pick(WORDS)}` } });
    }
  }
  const was = new Map<string, string | null>();
  const made = (node: Node, path: string): Element => {
    const key = `${screen.key}:${path}`;
    was.set(key, node.was);
    const { text, ...element } = node.element;
    const { id: _, ...source } = node.element.source;
    return {
      ...element,
      ...(text === undefined ? {} : { text }),
      key,
      source: { ...source, path },
      children: node.children.map((child, i) => made(child, path ? `${path}/${i}` : String(i))),
    };
  };
  return { screen: { ...screen, root: made(root, '') }, was };
}
