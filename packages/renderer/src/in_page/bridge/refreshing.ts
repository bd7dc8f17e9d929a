import { type AppModules, type Changes, modulesHere } from '../app_modules.ts';
import type { Frame } from './frame.ts';

const SHEET = '_app/app.css';

type Built = Changes & { readonly isSheetNew: boolean };

/**
 * Takes over what became of the app while it runs, with all that it remembers, shows and has open; where that cannot be done,
 * the page is loaded anew. What a step under way will make of it is asked for ahead, and taken over as soon as it is built.
 * @param tell told when it was taken over
 */
export function refreshAsTold(frame: Frame, reload: () => void, tell: () => void): void {
  let count = 0;
  /** Each address is read once only. @param beyond the place in the history that is waited for */
  const becameOf = (version: string, beyond = ''): Promise<Built> =>
    import(`${frame.base}/_app/changes.${version}.js?${++count}${beyond}`) as Promise<Built>;
  const take = async (modules: AppModules, changes: Built): Promise<void> => {
    if (changes.version === modules.version) return;
    try {
      const done = changes.isSheetNew ? await sheetPutOn(`${frame.base}/${SHEET}?${changes.version}`) : null;
      if (!modules.take(changes)) return reload();
      done?.();
      requestAnimationFrame(tell);
    } catch {
      reload();
    }
  };
  const refresh = async (): Promise<void> => {
    const modules = modulesHere();
    // What broke before stays broken, whatever its code becomes.
    if (!modules || frame.isBroken) return reload();
    const changes = await becameOf(modules.version).catch(() => null);
    return changes ? take(modules, changes) : reload();
  };
  let last = Promise.resolve();
  frame.on('refresh', () => {
    last = last.then(refresh);
  });
  frame.on('ahead', async ({ value }) => {
    const modules = modulesHere();
    if (!modules || frame.isBroken) return;
    const since = modules.version;
    const changes = await becameOf(since, `&beyond=${Number(value)}`).catch(() => null);
    // What is not known by then is told once it is built.
    if (changes?.version === undefined) return;
    last = last.then(() => (modules.version === since ? take(modules, changes) : undefined));
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
