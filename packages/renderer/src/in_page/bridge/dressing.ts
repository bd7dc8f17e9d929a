import type { Frame } from './frame.ts';

/** Gives the custom properties of the app the values that it is told, and those that it was told before back their own. */
export function dressAsTold(frame: Frame): void {
  const { style } = document.documentElement;
  let worn: readonly string[] = [];
  frame.on('dress', ({ values }) => {
    for (const property of worn) style.removeProperty(property);
    const told = typeof values === 'object' && values ? Object.entries(values) : [];
    worn = told.flatMap(([name, value]) => {
      if (!/^[a-z][a-z0-9-]*$/.test(name) || typeof value !== 'string') return [];
      style.setProperty(`--${name}`, value);
      return [`--${name}`];
    });
  });
}
