import { modulesHere } from '../app_modules.ts';
import type { Frame } from './frame.ts';

const LONGEST = 500;
const MOST_PLACES = 8;

/** Tells what goes wrong in the app and what it writes to its console, with what was pressed last. */
export function tellFaults(frame: Frame): void {
  const tellError = (thrown: unknown): void => {
    // A transition that the next one cut short is no mistake.
    if (thrown instanceof DOMException && thrown.name === 'AbortError') return;
    frame.isBroken = true;
    const [says, stack] =
      thrown instanceof Error ? [thrown.message, thrown.stack ?? ''] : [String(thrown), ''];
    // Places in the app itself, the innermost first; what it calls of others throws for it.
    const places = [...stack.matchAll(/\/_app\/(?:app|changes\.(\w+))\.js(?:\?\d*)?:(\d+):(\d+)/g)]
      .slice(0, MOST_PLACES)
      .map(([, since, line, column]) => ({
        script: modulesHere()?.scriptOf(since ?? null) ?? '',
        line: Number(line),
        column: Math.max(0, Number(column) - 1),
      }));
    frame.tell('error', {
      says: says.slice(0, LONGEST),
      places,
      by: frame.pressed,
      path: frame.path,
    });
  };
  addEventListener('error', ({ error }) => tellError(error));
  addEventListener('unhandledrejection', ({ reason }) => tellError(reason));
  for (const level of ['error', 'warn', 'log'] as const) {
    const original = console[level].bind(console);
    console[level] = (...said: unknown[]) => {
      original(...said);
      // What a component throws is caught around it.
      if (level === 'error' && said.some((one) => one instanceof Error)) frame.isBroken = true;
      frame.tell('console', {
        level,
        says: said.map(inWords).join(' ').slice(0, LONGEST),
        by: frame.pressed,
      });
    };
  }
}

function inWords(value: unknown): string {
  if (value instanceof Error) return value.message;
  if (typeof value !== 'object') return String(value);
  try {
    return JSON.stringify(value) ?? '';
  } catch {
    return Object.prototype.toString.call(value);
  }
}
