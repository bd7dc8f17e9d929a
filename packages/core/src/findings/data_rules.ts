import { putBinding, putDelivery } from '../change/change.ts';
import { expressionNames } from '../data/expression_names.ts';
import { parseExpression } from '../expression/language.ts';
import { elementOfInteraction } from '../model/interaction.ts';
import { findElement, screenOf } from '../model/places.ts';
import type { Found, Rule } from './finding.ts';

/** What is done with records and cannot be, or is not delivered. */
export const dataRules: readonly Rule[] = [
  {
    code: 'expression',
    level: 'warning',
    station: 'map',
    title: 'Texts whose expressions cannot be read',
    find: ({ project }) =>
      Object.entries(project.app.bindings).flatMap(([element, binding]) => {
        if (!findElement(project.design, element)) return [];
        const screen = screenOf(project.design, element);
        const known = expressionNames(project, screen);
        return Object.entries(binding).flatMap(([what, source]): Found[] => {
          const { problem } = parseExpression(source, known);
          return problem
            ? [
                {
                  screen,
                  element,
                  about: what,
                  message: `What it shows cannot be worked out, so that it stays as it was drawn: ${problem.message}. It is “${source}”, written at Data.`,
                  fix: { label: 'Show what was drawn', change: putBinding(element, null) },
                },
              ]
            : [];
        });
      }),
  },
  {
    code: 'plain-records',
    level: 'warning',
    station: 'map',
    title: 'What plain pages leave out',
    find: ({ project: { design, app } }) => {
      if (app.delivery.target !== 'html') return [];
      const deeds = Object.entries(app.interactions).filter(([, { before = [], target }]) =>
        [...before, target].some(({ kind }) => kind === 'list' || kind === 'record'),
      );
      const elements = [
        ...deeds.map(([key]) => elementOfInteraction(key)),
        ...Object.keys(app.forms),
        ...Object.keys(app.bindings),
      ].filter((key) => findElement(design, key));
      if (!elements.length) return [];
      const [first] = elements;
      const count = elements.length === 1 ? 'One place does' : `${elements.length} places do`;
      return [
        {
          screen: screenOf(design, first),
          element: first,
          message: `${count} something with records, and plain pages have none: lists, forms and texts stay there as they were drawn. React and Vue have them.`,
          fix: { label: 'Write the code in React', change: putDelivery('target', 'react') },
        },
      ];
    },
  },
];
