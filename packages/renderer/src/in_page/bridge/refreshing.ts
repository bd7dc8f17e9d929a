import { type Changes, modulesHere } from '../app_modules.ts';
import type { Frame } from './frame.ts';

const SHEET = '_app/app.css';

/**
 * Takes over what became of the app while it runs, with all that it remembers, shows and has open; where that cannot be done,
 * the page is loaded anew.
 * @param tell told when it was taken over
 */
export function refreshAsTold(frame: Frame, reload: () => void, tell: () => void): void {
  let count = 0;
  const refresh = async (): Promise<void> => {
    const modules = modulesHere();
    // What broke before stays broken, whatever its code becomes.
    if (!modules || frame.isBroken) return reload();
    try {
      // Each address is read once only.
      const from = `${frame.base}/_app/changes.${modules.version}.js?${++count}`;
      const changes = (await import(from)) as Changes & { readonly isSheetNew: boolean };
      const done = changes.isSheetNew ? await sheetPutOn(`${frame.base}/${SHEET}?${changes.version}`) : null;
      if (!modules.take(changes)) return reload();
      done?.();
      requestAnimationFrame(tell);
    } catch {
      reload();
    }
  };
  let last = Promise.resolve();
  frame.on('refresh', () => {
    last = last.then(refresh);
  });
}

/** Puts the sheet of the app on once more, which gives what takes those before it off, once what they were for is gone. */
async function sheetPutOn(address: string): Promise<() => void> {
  const before = [...document.querySelectorAll<HTMLLinkElement>(`link[href*="${SHEET}"]`)];
  const link = document.createElement('link');
  link.rel = 'stylesheet';
  const isThere = new Promise<void>((resolve, reject) => {
    link.onload = () => resolve();
    link.onerror = () => reject(new Error('The sheet did not come.'));
  });
  link.href = address;
  before.at(-1)!.after(link);
  await isThere;
  return () => before.forEach((one) => one.remove());
}
