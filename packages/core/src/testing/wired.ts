import { applyChange, putInteraction, putScreen, putStill } from '../change/change.ts';
import { pressablesOf } from '../links/pressable.ts';
import type { Interaction, Target } from '../model/app.ts';
import type { Project } from '../model/project.ts';
import { projectOf, screenWith } from './build.ts';

export const to = (target: Target): Interaction => ({ on: 'press', target, arrival: { kind: 'none' } });

/**
 * Screens of three buttons. `a>b c>a`: wires the next open button of the one to the other; `a><` leads
 * back and `a>^` outside; `b!` skips, `b-` deletes, `a.` marks still.
 */
export function wired(script: string, names = 'abcd'): Project {
  let { design, app } = projectOf(...[...names].map((name) => screenWith(name, 'One', 'Two', 'Three')));
  const next = (screen: string): string =>
    pressablesOf(design.screens.find((s) => s.key === screen)!).find(
      (p) => !app.interactions[p.element.key] && !app.still[p.element.key],
    )!.element.key;
  for (const word of script.split(' ').filter(Boolean)) {
    const [from, sign, target] = word;
    if (sign === '!') app = applyChange(app, putScreen(from, { ...app.screens[from], use: 'skip' }));
    else if (sign === '-') app = applyChange(app, putScreen(from, null));
    else if (sign === '.') app = applyChange(app, putStill(next(from), true));
    else
      app = applyChange(
        app,
        putInteraction(
          next(from),
          to(
            target === '<'
              ? { kind: 'back' }
              : target === '^'
                ? { kind: 'external', href: 'https://example.org' }
                : { kind: 'screen', screen: target },
          ),
        ),
      );
  }
  return { design, app };
}
