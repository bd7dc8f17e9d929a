import { putLayer, putScreen } from '../../change/change.ts';
import { planFor, planScreen } from '../../project/plan_screen.ts';
import type { Element, Notice, Screen } from '../../model/design.ts';
import { sentenceCase, uniqueName } from '../../model/names.ts';
import {
  orderedScreens,
  type Project,
  screenName,
  textOf,
  walkElements,
  screensByKey,
} from '../../model/project.ts';
import { baseName } from '../../intake/files.ts';
import { freeRoute, routeFromName } from '../../routes/routes.ts';
import { pressablesOf } from '../../links/pressable.ts';
import { roleOf } from '../../roles/role.ts';
import type { Found, Rule } from '../finding.ts';
import { onceFor } from '../../json/once_for.ts';

/** Names that programs give, and that say nothing. */
const SAYS_NOTHING =
  /^(group|frame|rectangle|rect|ellipse|path|vector|artboard|page|screen|layer|untitled|unnamed|image|img|picture|copy|view|wireframe|mock-?up|section|screenshot|export|document|index|new|scan)?( ?copy)?[\s_#-]*\d*( ?copy)?( ?\d+)?$/i;

const saysNothing = (name: string): boolean => SAYS_NOTHING.test(name.trim());

/** What names and words tell. */
export const wordRules: readonly Rule[] = [
  {
    code: 'screen-name',
    level: 'info',
    station: 'intake',
    title: 'Names that say nothing',
    find: ({ project, graph }) => {
      const names = new Set(Object.values(project.app.screens).map((entry) => entry.name.toLowerCase()));
      return graph.screens.flatMap((key): Found[] => {
        const name = screenName(project, key);
        if (!saysNothing(name)) return [];
        const screen = screensByKey(project.design).get(key)!;
        const better = betterName(screen);
        const message = `“${name}” says nothing of what the screen is`;
        if (!better)
          return [{ screen: key, element: null, message: `${message}. Give it a name in Screens.` }];
        const free = uniqueName(better, (candidate) => names.has(candidate.toLowerCase()), ' ');
        names.add(free.toLowerCase());
        return [
          {
            screen: key,
            element: null,
            message: `${message}; its largest text is “${better}”.`,
            fix: { label: `Call it ${free}`, change: rename(project, key, free) },
          },
        ];
      });
    },
  },
  {
    code: 'name-clash',
    level: 'info',
    station: 'intake',
    title: 'Names that clash',
    find: ({ project, graph }) => {
      const files = new Map(
        project.design.screens.map((screen) => [screen.key, baseName(screen.source.file)]),
      );
      // Where two came in with one name, intake put the names of their files behind it.
      const stem = (key: string): string => {
        const name = screenName(project, key).replace(/ \d+$/, '');
        const ending = ` (${files.get(key)})`;
        return (name.endsWith(ending) ? name.slice(0, -ending.length) : name).toLowerCase();
      };
      const names = new Set(graph.screens.map((key) => screenName(project, key)));
      const groups = new Map<string, string[]>();
      for (const key of graph.screens) groups.set(stem(key), [...(groups.get(stem(key)) ?? []), key]);
      return [...groups.values()]
        .filter((keys) => keys.length > 1 && !saysNothing(screenName(project, keys[0])))
        .flatMap((keys) =>
          keys.map((key): Found => {
            const screen = screensByKey(project.design).get(key)!;
            const better = betterName(screen);
            const isBetter = better && better.toLowerCase() !== stem(key) && !names.has(better);
            return {
              screen: key,
              element: null,
              message: `${keys.length} screens are called “${sentenceCase(stem(key))}”; this one came in as ${screen.source.file}.`,
              ...(isBetter
                ? { fix: { label: `Call it ${better}`, change: rename(project, key, better) } }
                : {}),
            };
          }),
        );
    },
  },
  {
    code: 'layer-name',
    level: 'info',
    station: 'intake',
    title: 'Elements whose names say nothing',
    find: ({ project, graph }) =>
      graph.screens.flatMap((key): Found[] => {
        const screen = screensByKey(project.design).get(key)!;
        return pressablesOf(screen)
          .filter(
            ({ element, label }) =>
              saysNothing(label) && saysNothing(element.name) && !/^\d+$/.test(label.trim()),
          )
          .map(({ element }): Found => {
            const better = nameByPlace(element, screen);
            return {
              screen: key,
              element: element.key,
              message: `“${element.name}” on ${screenName(project, key)} can be pressed, and nothing says what it is.`,
              fix: {
                label: `Call it ${better}`,
                change: putLayer(element.key, { ...project.app.layers[element.key], name: better }),
              },
            };
          });
      }),
  },
  {
    code: 'absent-screen',
    level: 'warning',
    station: 'intake',
    title: 'Screens that are spoken of and absent',
    find: ({ project, graph }) => {
      const found = new Map<string, Found>();
      const screensOf = new Map<string, Set<string>>();
      const has = screenFinder(project);
      for (const key of graph.screens)
        for (const state of graph.elements.get(key)!) {
          const label = state.label.trim();
          const said = label.toLowerCase();
          if (state.within) screensOf.set(said, (screensOf.get(said) ?? new Set()).add(key));
          if (
            !state.within ||
            state.standing !== 'open' ||
            // What is written as a button does something here.
            state.element.tag === 'button' ||
            label.length < 3 ||
            label.length > 30 ||
            has(label)
          )
            continue;
          if (!found.has(said))
            found.set(said, {
              screen: key,
              element: state.element.key,
              about: said,
              message: `“${label}” in the navigation of ${screenName(project, key)} leads to no screen that came along. Was it forgotten?`,
              fix: {
                label: 'To be drawn',
                change: planFor(project.app, label, state.element.key),
              },
            });
        }
      // Where screens share their navigation, another one on one of them is an example, or part of what it shows.
      if ([...screensOf.values()].some(({ size }) => size > 1))
        for (const [said, { size }] of screensOf) if (size < 2) found.delete(said);
      for (const name of namedInBrief(project.design.brief ?? ''))
        if (!has(name) && !found.has(name.toLowerCase()))
          found.set(name.toLowerCase(), {
            screen: null,
            element: null,
            about: name.toLowerCase(),
            message: `The brief speaks of “${name}”; no such screen came along.`,
            fix: { label: 'To be drawn', change: planScreen(project.app, name).change },
          });
      return [...found.values()];
    },
  },
  {
    code: 'missing-font',
    level: 'warning',
    station: 'intake',
    title: 'Fonts that did not come along',
    find: ({ project, graph }) => {
      const used = new Set(graph.screens);
      const carried = new Set((project.design.fonts ?? []).map((face) => face.family.toLowerCase()));
      const said = project.design.notices
        .filter(({ code }) => code === 'missing-font' || code === 'html-font')
        .map(({ message }) => message.toLowerCase());
      const families = new Map<string, { name: string; next: string | null; screens: string[] }>();
      for (const screen of project.design.screens) {
        if (!used.has(screen.key)) continue;
        for (const list of familiesOn(screen)) {
          const [first, next] = list.split(',').map((family) => family.trim().replace(/["']/g, ''));
          const id = first.toLowerCase();
          if (
            !id ||
            carried.has(id) ||
            COMMON_FONTS.has(id) ||
            said.some((message) => message.includes(`“${id}”`))
          )
            continue;
          const known = families.get(id) ?? { name: first, next: next ?? null, screens: [] };
          if (!known.screens.includes(screen.key)) known.screens.push(screen.key);
          families.set(id, known);
        }
      }
      return [...families.values()].map(({ name, next, screens }): Found => ({
        screen: screens[0],
        element: null,
        about: name.toLowerCase(),
        message: `${screenName(project, screens[0])}${screens.length > 1 ? ` and ${screens.length - 1} more` : ''} asks for the font “${name}”, which did not come along; ${next ? `“${next}”` : 'the browser’s own'} shows where it is not installed.`,
      }));
    },
  },
  {
    code: 'missing-part',
    level: 'warning',
    station: 'intake',
    title: 'Fonts, pictures and styles missing',
    find: ({ project, graph }) => {
      const used = new Set(graph.screens);
      const byFile = new Map(
        project.design.screens
          .filter((screen) => used.has(screen.key))
          .map((screen) => [screen.source.file, screen.key]),
      );
      const groups = new Map<string, Notice[]>();
      for (const notice of project.design.notices)
        if (MISSING.has(notice.code) && byFile.has(notice.file))
          groups.set(notice.message, [...(groups.get(notice.message) ?? []), notice]);
      return [...groups.values()].map(([notice, ...more]): Found => {
        const screen = byFile.get(notice.file)!;
        return {
          screen,
          element: notice.path === undefined ? null : `${screen}:${notice.path}`,
          about: notice.message.slice(0, 120),
          message: `${notice.message}${more.length ? ` The same on ${more.length} more ${more.length === 1 ? 'screen' : 'screens'}.` : ''}`,
        };
      });
    },
  },
];

const MISSING = new Set([
  'html-missing',
  'html-font',
  'missing-font',
  'image-missing',
  'utilities',
  'use-missing',
  'page-empty',
]);

/** Every list of font families that a screen names. */
const familiesOn = onceFor((screen: Screen): readonly string[] => {
  const found = new Set<string>();
  walkElements(screen.root, (element) => {
    const family = element.style.base['font-family'];
    if (family && family !== 'inherit') found.add(family);
  });
  return [...found];
});

/** Families that stand for what a system has, or that nearly every system has. */
const COMMON_FONTS = new Set(
  'serif,sans-serif,monospace,cursive,fantasy,system-ui,ui-sans-serif,ui-serif,ui-monospace,ui-rounded,-apple-system,blinkmacsystemfont,segoe ui,helvetica,helvetica neue,arial,times,times new roman,courier,courier new,georgia,verdana,tahoma,trebuchet ms,sans,menlo,monaco,consolas'.split(
    ',',
  ),
);

/** A route that only followed from the old name follows the new one. */
function rename(project: Project, key: string, name: string) {
  const entry = project.app.screens[key];
  const others = new Set(
    Object.entries(project.app.screens).flatMap(([other, { route }]) => (other === key ? [] : [route])),
  );
  const isMade =
    entry.route === routeFromName(entry.name) || entry.route.startsWith(`${routeFromName(entry.name)}-`);
  return putScreen(key, { ...entry, name, route: isMade ? freeRoute(name, others) : entry.route });
}

/** A heading, else the largest text, where it is short enough to be a name. */
const betterName = onceFor((screen: Screen): string | null => {
  let best: { text: string; size: number } | null = null;
  walkElements(screen.root, (element) => {
    const text = element.text?.replace(/\s+/g, ' ').trim();
    if (!text || text.length < 3 || text.length > 40 || !/\p{L}{2}/u.test(text)) return;
    const size =
      (element.tag === 'h1' ? 1000 : element.tag === 'h2' ? 100 : 0) +
      (parseFloat(element.style.base['font-size'] ?? '') || element.box.height);
    if (!best || size > best.size) best = { text, size };
  });
  const region = screen.regions
    ?.filter(
      (found) =>
        found.text && found.confidence > 0.7 && /\p{L}{3}/u.test(found.text) && found.text.length <= 40,
    )
    .toSorted((a, b) => b.box.height - a.box.height)[0];
  const text = (best as { text: string } | null)?.text ?? region?.text ?? null;
  return text ? sentenceCase(text) : null;
});

/** What an element without a name is called by its role and where it stands. */
function nameByPlace(element: Element, screen: Screen): string {
  const role = roleOf(element) === 'listitem' ? 'row' : (roleOf(element) ?? 'button');
  const text = textOf(element);
  if (text) return `${sentenceCase(text.slice(0, 30))} ${role}`;
  const x =
    element.box.x + element.box.width / 2 < screen.width / 3
      ? 'left'
      : element.box.x > (screen.width * 2) / 3
        ? 'right'
        : 'middle';
  const y = element.box.y < 120 ? 'Top' : element.box.y > screen.height - 120 ? 'Bottom' : 'Centre';
  return `${y} ${x} ${role}`;
}

/** Small words that two names of the same thing may differ by. */
const FILLERS = new Set([
  'the',
  'a',
  'my',
  'your',
  'our',
  'all',
  'screen',
  'page',
  'view',
  'of',
  'and',
  'to',
]);
const wordsOf = (name: string): string[] =>
  name
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter((word) => word && !FILLERS.has(word))
    .map((word) => (word.length > 3 ? word.replace(/(es|s)$/, '') : word));

/** Tells whether some screen, used or not, goes by a name: by its own, its route or its heading. */
function screenFinder(project: Project): (name: string) => boolean {
  const known = orderedScreens(project.app).flatMap((key) => {
    const screen = screensByKey(project.design).get(key);
    const { name, route } = project.app.screens[key];
    return [name, route, screen ? (betterName(screen) ?? '') : ''].map((text) => new Set(wordsOf(text)));
  });
  return (name) => {
    const words = wordsOf(name);
    return words.length === 0 || known.some((other) => words.every((word) => other.has(word)));
  };
}

/** Names of screens in a text: what is listed beneath a heading that speaks of screens, and “the … screen”. */
export function namedInBrief(brief: string): string[] {
  const names: string[] = [];
  let isList = false;
  for (const line of brief.slice(0, 100_000).split(/\r?\n/)) {
    const isHeading = /^\s*#|:\s*$/.test(line);
    if (isHeading) isList = /\b(screens?|pages?|views?)\b/i.test(line);
    else if (isList) {
      const item = /^\s*(?:[-*•]|\d+[.)])\s+\**([^:–—(*]+?)\**\s*(?:[:–—(].*)?$/.exec(line)?.[1];
      if (item && item.length <= 40)
        names.push(item.replace(/\s+(screen|page|view)$/i, '').replace(/[.,;]$/, ''));
      else if (line.trim() && !item) isList = false;
    }
    for (const [, name] of line.matchAll(
      /\b[Tt]he ((?:[A-Z][\p{L}\p{N}-]*)(?: [\p{L}\p{N}-]+){0,2}) (?:screen|page)\b/gu,
    ))
      names.push(name);
  }
  return [...new Map(names.map((name) => [name.toLowerCase(), sentenceCase(name)])).values()];
}
