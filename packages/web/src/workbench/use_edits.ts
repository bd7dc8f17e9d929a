import {
  type Declarations,
  type EditCondition,
  editKey,
  type Element,
  putEdit,
  all,
  elementsByKey,
  screenWith,
  labelOf,
} from '@tovel/core';
import { useProject } from '../project/context';

/** What can be said of the look and the layout of one element under one condition. */
export interface Edits {
  /** What holds now: what was edited, else what was drawn. */
  readonly valueOf: (property: string) => string;
  readonly isEdited: (property: string) => boolean;
  /** Sets properties in one step; null takes an edit back. */
  readonly set: (what: string, values: Readonly<Record<string, string | null>>) => void;
}

/** The edits of an element as it is in the app. */
export function useEdits(element: Element, condition: EditCondition): Edits {
  const { app, session, drawn } = useProject();
  const key = (property: string): string => editKey(element.key, property, condition);
  const original = elementsByKey(screenWith(drawn, element.key) ?? drawn.screens[0]).get(element.key);
  return {
    valueOf: (property) => {
      const edited = app.edits[key(property)];
      if (edited !== undefined) return edited;
      if (property === 'text') return element.text ?? textIn(element);
      return declarationsOf(element, condition)[property] ?? element.style.base[property] ?? '';
    },
    isEdited: (property) => app.edits[key(property)] !== undefined,
    set: (what, values) => {
      const changes = Object.entries(values).map(([property, value]) => {
        // What is as it was drawn needs no edit.
        const isAsDrawn =
          value !== null && condition.kind === 'always' && original?.style.base[property] === value;
        return putEdit(key(property), value === null || isAsDrawn ? null : value);
      });
      session.change(`${what} of ${labelOf(element)}`, changes.length === 1 ? changes[0] : all(changes));
    },
  };
}

function declarationsOf({ style }: Element, condition: EditCondition): Declarations {
  switch (condition.kind) {
    case 'always':
      return style.base;
    case 'upTo':
      return style.at?.[condition.width] ?? {};
    case 'from':
      return style.from?.[condition.width] ?? {};
    case 'state':
      return style[condition.state] ?? {};
  }
}

function textIn(element: Element): string {
  if (element.text?.trim()) return element.text;
  const { attributes } = element;
  if (element.kind === 'control') return attributes?.value ?? attributes?.placeholder ?? '';
  for (const child of element.children) {
    const text = textIn(child);
    if (text) return text;
  }
  return '';
}
