import type { Project } from '../model/project.ts';
import {
  variableLine,
  guard,
  journeyLine,
  journeyStep,
  link,
  overlay,
  redirect,
  screenLine,
  shownWith,
  start,
  still,
  title,
} from './grammar.ts';
import { variablesOf, Sheet, useOf } from './sheet.ts';

/** The file of a delivered project that holds its flow sheet. */
export const FLOW_SHEET = 'flow-sheet.txt';

/**
 * Everything that an app does as one plain text: screens with their routes, what each element of them does, overlays,
 * guards, variables, redirects and journeys. One line a link, in an order that does not depend on how it came about, so
 * that it can be compared line by line; `readFlow` reads it back. The language is explained in docs/FLOW_SHEET.md.
 */
export function printFlow(project: Project, name: string): string {
  const sheet = new Sheet(project);
  const { app } = project;
  const top = { known: sheet.known, screen: null };
  const head = [
    title.print({ name }, top),
    ...(app.start === null ? [] : [start.print({ screen: app.start }, top)]),
    ...variablesOf(project).map(([key]) => variableLine.print(app.variables[key], top)),
    ...Object.keys(app.redirects)
      .sort()
      .map((from) => redirect.print({ from, to: app.redirects[from].to }, top)),
  ];
  const blocks = sheet.screens.map((key) => {
    const entry = app.screens[key];
    const place = { known: sheet.known, screen: key };
    const line = screenLine.print({ use: useOf(entry.use)!, name: entry.name, route: entry.route }, top);
    return [
      entry.use === 'overlay' && entry.overlay ? `${line} ${overlay.print(entry.overlay, place)}` : line,
      ...within([
        ...(entry.guard ? [guard.print(entry.guard, place)] : []),
        ...(entry.params ? [shownWith.print({ params: entry.params }, place)] : []),
        ...sheet.linksOf(key).map((one) => link.print(one, place)),
        ...sheet.stillOf(key).map((element) => still.print({ element }, place)),
      ]),
    ];
  });
  const journeys = Object.keys(app.journeys)
    .sort()
    .map((key) => {
      const { name: called, start: first, steps } = app.journeys[key];
      let screen = first;
      const lines = steps.map((one) => {
        const line = journeyStep.print(sheet.saidStep(one), { known: sheet.known, screen });
        if (one.kind === 'do') screen = one.to;
        return line;
      });
      return [journeyLine.print({ name: called, start: first }, top), ...within(lines)];
    });
  return [head, ...blocks, ...journeys].map((lines) => `${lines.join('\n')}\n`).join('\n');
}

const within = (lines: readonly string[]): string[] => lines.map((line) => `  ${line}`);
