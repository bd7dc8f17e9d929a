import { derivedVariables } from '../variables/variables.ts';
import { putBinding, putCollection, putDelivery } from '../change/change.ts';
import { expressionNames } from '../records/expression_names.ts';
import { type DataValue, recordsOf } from '../records/records.ts';
import { comesFromApi } from '../described/keep.ts';
import { boundParts, readBinding } from '../expression/read_binding.ts';
import { shownRowsProblem } from '../records/shown_rows.ts';
import type { ScreenGraph } from '../graph/graph.ts';
import { drawnStatesOf } from '../drawn_states/take.ts';
import type { App, DrawnState, FormField } from '../model/app.ts';
import { elementOfInteraction } from '../model/interaction.ts';
import { findElement, screenOf } from '../model/places.ts';
import { sentenceCase } from '../model/names.ts';
import { screenName } from '../model/project.ts';
import type { Found, Rule } from './finding.ts';

/** Why a field of a form can never be right; null where it can. */
function impossible(field: FormField, fields: readonly FormField[]): string | null {
  const { least, most, from, to, same } = field;
  if (least !== undefined && most !== undefined && least > most)
    return `it needs ${least} letters and may have ${most}`;
  const [first, last] = [from, to].map((text) => (text === undefined ? NaN : Number(text)));
  const isBackwards = first > last || (Number.isNaN(first) && Number.isNaN(last) && from && to && from > to);
  if (isBackwards) return `nothing is ${from} or more and ${to} or less`;
  if (same !== undefined && !fields.some((one) => one.field === same))
    return `it has to say the same as “${same}”, which the form does not have`;
  return null;
}

const isSaid = (value: DataValue | undefined): boolean =>
  !!value && (value.text.trim() !== '' || !!value.asset);

const WHILE: Readonly<Record<DrawnState, string>> = {
  waiting: 'while they are waited for',
  failed: 'when they cannot be had',
  empty: 'when there are none',
};
const listed = new Intl.ListFormat('en', { type: 'disjunction' });

/** For what reasons a list of a collection can have nothing to show: what an API keeps can be late, or stay away. */
function whyNothingShows(app: App, id: string): readonly DrawnState[] {
  if (comesFromApi(app, id)) return ['waiting', 'failed', 'empty'];
  const canBeNone = Object.values(app.interactions).some(({ before = [], target }) =>
    [...before, target].some(
      (step) =>
        (step.kind === 'record' && step.collection === id && step.deed.kind === 'remove') ||
        (step.kind === 'list' &&
          step.collection === id &&
          (step.deed.kind === 'search' || step.deed.kind === 'filter' || step.deed.kind === 'choose')),
    ),
  );
  return canBeNone ? ['empty'] : [];
}

/** Whether an overlay is opened by something on a screen. */
const opensOver = (graph: ScreenGraph, overlay: string, screen: string): boolean =>
  (graph.arrivals.get(overlay) ?? []).some((link) => link.from === screen);

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
        return boundParts(binding).flatMap(([what, source]): Found[] => {
          const problem =
            readBinding(what, source, known).problem ??
            (what === 'rows' ? shownRowsProblem(project, element) : undefined);
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
    code: 'variable',
    level: 'error',
    station: 'map',
    title: 'Variables that cannot be worked out',
    find: ({ project: { app } }) =>
      [...derivedVariables(app).problems].map(([id, why]): Found => ({
        screen: null,
        element: null,
        about: id,
        message: `“${app.variables[id].name}” cannot be worked out from “${app.variables[id].says}”: ${why}. It is ${String(app.variables[id].initial) || 'nothing'} until that is mended at Data, Variables.`,
      })),
  },
  {
    code: 'form-impossible',
    level: 'error',
    station: 'map',
    title: 'Forms that can never be right',
    find: ({ project: { design, app } }) =>
      Object.entries(app.forms).flatMap(([form, { fields }]): Found[] =>
        fields.flatMap((field) => {
          const why = impossible(field, fields);
          if (why === null || !findElement(design, field.element)) return [];
          return [
            {
              screen: screenOf(design, field.element),
              element: field.element,
              about: form,
              message: `The field “${field.field}” can never be filled in right: ${why}. Its rules are at Data.`,
            },
          ];
        }),
      ),
  },
  {
    code: 'record-incomplete',
    level: 'warning',
    station: 'map',
    title: 'Records that do not say what they need',
    find: ({ project: { design, app } }) =>
      Object.entries(app.collections).flatMap(([id, collection]) =>
        collection.fields.flatMap(({ name, required }): Found[] => {
          if (!required) return [];
          const without = recordsOf(design, collection).filter(({ values }) => !isSaid(values[name]));
          const element = without.flatMap(({ rows }) => rows)[0]?.element;
          if (!without.length) return [];
          return [
            {
              screen: element === undefined ? null : screenOf(design, element),
              element: element ?? null,
              about: `${id} ${name}`,
              message: `${without.length === 1 ? `One of ${collection.name} says` : `${without.length} of ${collection.name} say`} nothing in “${name}”, which each of them needs. Fill it in at Data, or let it be left out.`,
            },
          ];
        }),
      ),
  },
  {
    code: 'record-gone',
    level: 'warning',
    station: 'map',
    title: 'Records that are removed while they are shown',
    find: ({ project, graph }) =>
      Object.entries(project.app.details).flatMap(([screen, { collection }]) =>
        [screen, ...graph.overlays.filter((key) => opensOver(graph, key, screen))].flatMap((key) =>
          (graph.departures.get(key) ?? []).flatMap((link): Found[] => {
            const { before = [], target } = link.interaction;
            const removes = [...before, target].some(
              (step) =>
                step.kind === 'record' && step.collection === collection && step.deed.kind === 'remove',
            );
            const stays = target.kind !== 'screen' && target.kind !== 'back' && target.kind !== 'anchor';
            return removes && stays && !link.problem
              ? [
                  {
                    screen: key,
                    element: link.element,
                    about: link.key,
                    message: `“${link.label}” can remove the record that ${screenName(project, screen)} shows, and stays there. Let it lead to another screen afterwards.`,
                  },
                ]
              : [];
          }),
        ),
      ),
  },
  {
    code: 'state-undrawn',
    level: 'info',
    station: 'map',
    title: 'Lists that nobody drew without their records',
    find: ({ project }) => {
      const { app, design } = project;
      return Object.entries(app.collections).flatMap(([id, { name, rows }]) => {
        const reasons = whyNothingShows(app, id);
        if (!reasons.length) return [];
        return [...new Set(rows.map(({ within }) => within))].flatMap((within): Found[] => {
          const screen = screenOf(design, within);
          if (app.screens[screen]?.use !== 'screen') return [];
          const drawn = new Set(drawnStatesOf(app, screen).map(({ state }) => state));
          const undrawn = reasons.filter((state) => !drawn.has(state));
          if (!undrawn.length) return [];
          const whiles = listed.format(undrawn.map((state) => WHILE[state]));
          return [
            {
              screen,
              element: within,
              about: within,
              message: `${sentenceCase(name)}: nobody drew what stands here ${whiles}. The app says it in a plain line in the style of the screen; a drawing of ${screenName(project, screen)} as it is then can be brought in as a state of it.`,
            },
          ];
        });
      });
    },
  },
  {
    code: 'api-operation',
    level: 'warning',
    station: 'map',
    title: 'Collections whose API is gone',
    find: ({ project: { app } }) =>
      Object.entries(app.collections).flatMap(([id, collection]): Found[] => {
        const { behind, ...kept } = collection;
        if (!behind || comesFromApi(app, id)) return [];
        return [
          {
            screen: null,
            element: null,
            about: id,
            message: `The records of ${collection.name} come from “${behind.list}”, which no described API has any more; they are kept in the app until that is mended at Data.`,
            fix: { label: 'Keep them in the app', change: putCollection(id, kept) },
          },
        ];
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
