import { diffIndices } from 'node-diff3';
import {
  all,
  applyChange,
  type Change,
  putEdit,
  putInteraction,
  putProblem,
  putToken,
} from '../change/change.ts';
import type { EmittedFile } from '../emit/emitted.ts';
import { escapeText } from '../emit/quoting.ts';
import { FLOW_SHEET, printFlow } from '../flow/print_flow.ts';
import { readFlow } from '../flow/read_flow.ts';
import { hashOf } from '../intake/files.ts';
import { equalJson } from '../json/json.ts';
import { settle } from '../layers/settle.ts';
import { mergeFile } from '../merge/merge_file.ts';
import { routeMeaning } from './route_offers.ts';
import { styleMeaning } from './style_offers.ts';
import type { Token } from '../model/app.ts';
import { editKey } from '../model/edit_key.ts';
import { elementOfInteraction } from '../model/interaction.ts';
import { findElement } from '../model/places.ts';
import { isUsed, type Project, walkElements } from '../model/project.ts';
import { channelsOf } from '../roles/sight.ts';
import { normalValue } from '../tokens/values.ts';
import { basePath, linesOf, type Manifest, unpackBase } from './manifest.ts';

/** Something that somebody changed in delivered code and that means something in the project. */
export interface CodeOffer {
  readonly path: string;
  /** Where it stands there, from 1. */
  readonly line: number;
  readonly says: string;
  /** What makes the project say the same. */
  readonly change: Change;
}

export interface ReadBackInput {
  readonly project: Project;
  readonly name: string;
  readonly manifest: Manifest;
  /** A file as it lies there, or null. */
  readonly read: (path: string) => Promise<Uint8Array | null>;
  /** The code of a project, formatted, at the paths where it lies there. */
  readonly write: (project: Project) => Promise<readonly EmittedFile[]>;
}

/**
 * What of the changes that people made in delivered code means something in the project: texts, link targets, values of tokens,
 * addresses of screens, and what the flow sheet says. Each offer is proved: the code of the project with all of them taken over
 * says there what people wrote; what does not is left to merging.
 */
export async function readBack(input: ReadBackInput): Promise<CodeOffer[]> {
  const { project, name, manifest, read, write } = input;
  const sheets: CodeOffer[] = [];
  const files: TouchedFile[] = [];
  for (const { path, hash, parts } of manifest.files) {
    if (!/(\.(tsx|vue|html|css|txt)|(^|\/)routes\.ts)$/.test(path)) continue;
    const there = await read(path);
    if (!there || hashOf(there) === hash) continue;
    const kept = await read(basePath(hash));
    const base = kept && unpackBase(kept);
    if (!base) continue;
    const theirs = decoder.decode(there);
    if (path === FLOW_SHEET || path.endsWith(`/${FLOW_SHEET}`))
      sheets.push(...sheetOffers(path, project, { base, theirs, ours: printFlow(project, name) }));
    else files.push({ path, base, theirs, lines: linesOf(parts ?? []) });
  }
  return [...sheets, ...(await offersIn({ project, files, write }))];
}

/** A file that somebody changed: as it was written, and as it is now, with the element of each line that was written. */
export interface TouchedFile {
  readonly path: string;
  readonly base: string;
  readonly theirs: string;
  readonly lines: readonly (string | null)[];
}

/** What of the changes in these files means something in the project; each is proved. */
export async function offersIn({
  project,
  files: touched,
  write,
}: Pick<ReadBackInput, 'project' | 'write'> & {
  readonly files: readonly TouchedFile[];
}): Promise<CodeOffer[]> {
  const settled = settle(project);
  const candidates = touched.flatMap(({ path, base, theirs, lines }) =>
    candidatesIn(path, settled, base, theirs, lines),
  );
  if (!candidates.length) return [];
  const changed = {
    ...project,
    app: candidates.reduce((app, { change }) => applyChange(app, change), project.app),
  };
  const files = new Map((await write(changed)).map((file) => [file.path, file]));
  const versions = new Map(touched.map((one) => [one.path, one]));
  const says = (path: string, text: string): boolean => {
    const file = files.get(path);
    if (file === undefined || !('text' in file)) return false;
    // A declaration can stand in many rules: it has to be there as often as in theirs.
    return path.endsWith('.css')
      ? timesIn(file.text, text) === timesIn(versions.get(path)!.theirs, text)
      : onOneLine(file.text).includes(text);
  };
  const proved = candidates.filter(({ path, theirs }) => says(path, theirs));
  return proved.map(({ theirs: _theirs, ...offer }) => offer);
}

const timesIn = (text: string, line: string): number =>
  text.split('\n').filter((one) => one.trim() === line).length;

const decoder = new TextDecoder();

/** An offer that is still to be proved: the code has to say this. */
interface Candidate extends CodeOffer {
  readonly theirs: string;
}

function sheetOffers(
  path: string,
  project: Project,
  versions: { readonly base: string; readonly theirs: string; readonly ours: string },
): CodeOffer[] {
  const { text, conflicts } = mergeFile(path, versions);
  if (conflicts.length) return [];
  const { change } = readFlow(project, text);
  if (!change || change.kind !== 'all') return [];
  const [first] = hunksOf(versions.base, versions.theirs);
  const count = change.changes.length;
  return [
    {
      path,
      line: (first?.there ?? 0) + 1,
      says: `The flow sheet says ${count === 1 ? 'one thing' : `${count} things`} otherwise`,
      change,
    },
  ];
}

/** Lines that differ: where they begin in both versions, from 0, and how many they are. */
interface Hunk {
  readonly was: number;
  readonly wasCount: number;
  readonly there: number;
  readonly thereCount: number;
}

const hunksOf = (base: string, theirs: string): Hunk[] =>
  diffIndices(base.split('\n'), theirs.split('\n')).map(
    ({ buffer1: [was, wasCount], buffer2: [there, thereCount] }) => ({ was, wasCount, there, thereCount }),
  );

function candidatesIn(
  path: string,
  project: Project,
  base: string,
  theirs: string,
  elements: readonly (string | null)[],
): Candidate[] {
  const [was, there] = [base.split('\n'), theirs.split('\n')];
  const found = new Map<string, Candidate>();
  for (const hunk of hunksOf(base, theirs).flatMap(byLine))
    for (const one of [hunk, wholeElement(hunk, elements)]) {
      const [from, to] = [one.was, one.was + one.wasCount];
      const old = onOneLine(was.slice(from, to).join('\n'));
      const now = onOneLine(there.slice(one.there, one.there + one.thereCount).join('\n'));
      const keys = [...new Set(elements.slice(from, to).filter((key) => key !== null))];
      const meant =
        tokenChange(project, path, old, now) ??
        routeMeaning(project, path, old, now) ??
        keys.map((key) => linkChange(project, key, old, now)).find((change) => change !== null) ??
        keys.map((key) => textChange(project, key, old, now)).find((change) => change !== null) ??
        (path.endsWith('.css') && one.wasCount === 1 && keys[0] !== undefined
          ? styleMeaning(keys[0], was, from, now)
          : null);
      if (!meant || !isPossible(meant.change) || isSaid(project, meant.change)) continue;
      found.set(JSON.stringify(meant.change), { path, line: hunk.there + 1, theirs: now, ...meant });
      break;
    }
  return [...found.values()];
}

/** Lines that were changed one by one are looked at one by one. */
const byLine = (hunk: Hunk): Hunk[] =>
  hunk.wasCount === hunk.thereCount
    ? Array.from({ length: hunk.wasCount }, (_, i) => ({
        was: hunk.was + i,
        wasCount: 1,
        there: hunk.there + i,
        thereCount: 1,
      }))
    : [hunk];

/** A hunk with all lines of the element that it is of: texts run over several. */
function wholeElement(hunk: Hunk, elements: readonly (string | null)[]): Hunk {
  const { was, wasCount, there, thereCount } = hunk;
  const [first, last] = [elements[was], elements[was + wasCount - 1]];
  let [up, down] = [0, 0];
  while (up < Math.min(was, there) && first && elements[was - up - 1] === first) up++;
  while (last && elements[was + wasCount + down] === last) down++;
  return {
    was: was - up,
    wasCount: wasCount + up + down,
    there: there - up,
    thereCount: thereCount + up + down,
  };
}

const isPossible = (change: Change): boolean =>
  change.kind === 'put'
    ? putProblem(change.table, change.key, change.value) === null
    : change.kind === 'all' && change.changes.every(isPossible);

const isSaid = (project: Project, change: Change): boolean =>
  change.kind === 'put'
    ? equalJson((project.app[change.table] as Readonly<Record<string, unknown>>)[change.key], change.value)
    : change.kind === 'all' && change.changes.every((one) => isSaid(project, one));

type Meaning = Pick<CodeOffer, 'says' | 'change'>;

/** `--ink: #123;` that says another value. A colour that nobody gave a name becomes a token by the name that it is written by. */
function tokenChange({ app }: Project, path: string, old: string, now: string): Meaning | null {
  if (!path.endsWith('.css')) return null;
  const [was, is] = [old, now].map((line) => /^--([a-z][\w-]*): ([^;]+);$/.exec(line));
  if (!was || !is || was[1] !== is[1]) return null;
  const [, name, value] = was;
  const isNamed = Object.hasOwn(app.tokens, name);
  if (!isNamed && !channelsOf(value)) return null;
  const token: Token = isNamed
    ? app.tokens[name]
    : { kind: 'color', value, from: [normalValue('color', value)] };
  return {
    says: `Token ${name}: ${is[2]}, was ${value}`,
    change: putToken(name, { ...token, value: is[2] }),
  };
}

const ADDRESS = /\b(?:to|href)="([^"]*)"/;

/** A link that leads to another screen. */
function linkChange(project: Project, key: string, old: string, now: string): Meaning | null {
  const { app } = project;
  const [was, is] = [ADDRESS.exec(old)?.[1], ADDRESS.exec(now)?.[1]];
  if (was === undefined || is === undefined || was === is) return null;
  const screen = Object.keys(app.screens).find(
    (one) => isUsed(project, one) && app.screens[one].route === is,
  );
  if (screen === undefined) return null;
  for (const [id, interaction] of Object.entries(app.interactions)) {
    const { target } = interaction;
    if (elementOfInteraction(id) !== key || target.kind !== 'screen') continue;
    if (app.screens[target.screen]?.route !== was) continue;
    return {
      says: `The link leads to ${app.screens[screen].name}, was ${app.screens[target.screen].name}`,
      change: putInteraction(id, { ...interaction, target: { kind: 'screen', screen } }),
    };
  }
  return null;
}

/** Another text of an element, or of one in it. */
function textChange({ design }: Project, key: string, old: string, now: string): Meaning | null {
  const root = findElement(design, key);
  if (!root) return null;
  let found: Meaning | null = null;
  walkElements(root, (element) => {
    const text = onOneLine(element.text ?? '');
    if (found || !text) return;
    for (const [written, meant] of WRITTEN) {
      const at = old.indexOf(written(text));
      if (at < 0) continue;
      const [before, after] = [old.slice(0, at), old.slice(at + written(text).length)];
      if (!now.startsWith(before) || !now.endsWith(after) || now.length < before.length + after.length)
        continue;
      const said = meant(now.slice(before.length, now.length - after.length)).trim();
      if (!said || said === text || /[<>{}]/.test(said)) continue;
      // Space around a text parts it from what stands beside it.
      const [, lead, trail] = /^(\s*)[\s\S]*?(\s*)$/.exec(element.text ?? '')!;
      found = {
        says: `“${said}”, was “${text}”`,
        change: putEdit(editKey(element.key, 'text'), `${lead}${said}${trail}`),
      };
      return;
    }
  });
  return found;
}

/** How code writes a text, and what of it is meant: in markup, and in scripts. */
const WRITTEN: readonly (readonly [(text: string) => string, (written: string) => string])[] = [
  [escapeText, (written) => written.replace(/&lt;/g, '<').replace(/&gt;/g, '>').replace(/&amp;/g, '&')],
  [(text) => text.replace(/'/g, "\\'"), (written) => written.replace(/\\'/g, "'")],
];

const onOneLine = (text: string): string => text.replace(/\s+/g, ' ').trim();

/** All that is offered as one change. */
export const takeOffers = (offers: readonly CodeOffer[]): Change => all(offers.map(({ change }) => change));
