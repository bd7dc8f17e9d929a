import { type EmittedAct, isElement, type MarkupElement } from './markup.ts';

/** Whether an act is more than another way of looking at what is there. */
export const isHookedAct = ({ on, ways: [way, ...others] }: EmittedAct): boolean =>
  others.length > 0 ||
  !!way.when ||
  way.steps.length !== 1 ||
  (way.steps[0].kind !== 'list' && way.steps[0].kind !== 'turn') ||
  !isEvent(on);

/** Gestures that are events of an element. */
export type ElementEvent = 'press' | 'double-press' | 'hover' | 'change' | 'submit';
export const isEvent = (on: EmittedAct['on']): on is ElementEvent =>
  ['press', 'double-press', 'hover', 'change', 'submit'].includes(on);

/** Whether people do anything on a view that can be hooked. */
export const isActing = (node: MarkupElement): boolean =>
  (node.acts ?? []).some(isHookedAct) ||
  isHookedLink(node) ||
  isHookedDeed(node) ||
  node.children.some((child) => isElement(child) && isActing(child));

/** Whether pressing an element leads on by a function, rather than by a link or by what opens a part. */
export const isHookedLink = ({ link, form, slots }: MarkupElement): boolean =>
  (link?.kind === 'go' || link?.kind === 'external' || link?.kind === 'file') &&
  (form === 'button' || form === 'other') &&
  !slots?.to;

/** Whether a link is one that people hook in around, since it was drawn as what does something. */
export const isHookedDeed = ({ isDeed, slots }: MarkupElement): boolean => isDeed === true && !slots?.to;

/** Whether people hook in around where an element leads. */
export const isHooked = (node: MarkupElement): boolean => isHookedLink(node) || isHookedDeed(node);
