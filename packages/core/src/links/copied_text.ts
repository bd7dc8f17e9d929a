import type { Element } from '../model/design.ts';
import { textOf } from '../model/project.ts';

/** What is copied of an element: what is filled in, else what it says. */
export const copiedText = (element: Element): string =>
  (element.attributes?.value ?? textOf(element)).replace(/\s+/g, ' ').trim();
