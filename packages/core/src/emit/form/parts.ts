import { equalJson } from '../../json/json.ts';
import { asDrawn } from '../../model/places.ts';
import { FileNames, isCodeName, pascalCase, uniqueCodeName } from '../../model/names.ts';
import type { Project } from '../../model/project.ts';
import type { KeptRow } from '../../records/kept_rows.ts';
import { actNames } from './act_names.ts';
import { type CodeBefore, codeBefore, componentFile, type FileBefore, screenFile } from './before.ts';
import { isHooked } from './hooked.ts';
import { classesIn, type Extraction, keptExtraction } from './components/extract.ts';
import { extractionOf } from './components/extraction.ts';
import { type Icons, iconsOf } from './icons.ts';
import { keysInside, type Layouts, layoutsOf } from './layouts/layouts.ts';
import { type EmittedCollection, withRecords } from './live/records.ts';
import type { MarkupElement, StyleRule } from './markup.ts';
import { EmissionPlan, emitScreenOf } from './plan.ts';
import { namedIn, onlyNamed, type Palette, paletteOf } from './styles/palette.ts';
import { keptFile, styleOf } from './styles/as_before.ts';
import type { FileStyles } from './styles/places.ts';
import { type FileRules, type SharedStyles, shareStyles } from './styles/share.ts';

/** Names of components that have a folder or a file of their own. */
export class Folders {
  readonly #taken: FileNames;
  readonly #reserved: ReadonlySet<string>;

  /** @param reserved names that the target itself has */
  constructor(reserved: readonly string[] = []) {
    this.#reserved = new Set(reserved);
    this.#taken = new FileNames(reserved);
  }

  readonly has = (name: string): boolean => this.#taken.has(name);
  /**
   * @param kind what it is, in code
   * @param otherwise what it is called where its title has none of the letters that code has; its kind where that has none
   */
  readonly take = (title: string, kind: string, otherwise: () => string = () => ''): string => {
    const name = pascalCase(title) || pascalCase(otherwise());
    // What the language or the target has itself is told from that by what it is: `ErrorScreen`.
    const isOthers = this.#reserved.has(name) || (/^[A-Z]/.test(name) && !isCodeName(name));
    const folder = uniqueCodeName(isOthers ? `${name}${kind}` : name, kind, this.has);
    this.#taken.add(folder);
    return folder;
  };
}

/** What the files of a project have in common. */
export interface Parts {
  readonly extraction: Extraction;
  /** Records that change while the app runs. */
  readonly collections: readonly EmittedCollection[];
  readonly layouts: Layouts;
  /** All that each file looks like, before what they share is taken out. */
  readonly rules: readonly FileRules[];
  readonly styles: SharedStyles;
  readonly icons: Icons;
  readonly palette: Palette;
}

/** The extraction of last time, by the design as it was drawn. */
const lastExtracted = new WeakMap<Project['design'], Extraction>();

/** What the files have in common: written as it was before, where nothing speaks against it. */
export function partsOf(plan: EmissionPlan, folders: Folders): Parts {
  const { app } = plan.project;
  const before = codeBefore(app);
  const made = withRecords(extractionOf(plan), plan.live);
  const drawn = asDrawn(plan.project.design);
  const extraction = keptExtraction(lastExtracted.get(drawn), made.extraction);
  lastExtracted.set(drawn, extraction);
  const { collections } = made;
  const layouts = layoutsOf(plan, extraction, (title) => folders.take(`${title} layout`, 'Layout'));
  const rules = fileRules(plan, extraction, layouts);
  const { styles, palette } = looksOf(plan.project, rules, before);
  const icons = iconsOf(
    [
      ...[...plan.screens, ...plan.overlays.keys()].map((key) => rootOf(plan, extraction, layouts, key)),
      ...layouts.layouts.map(({ frame }) => frame.root),
      ...extraction.components.map(({ root }) => root),
    ],
    (taken) => folders.has(taken) || extraction.components.some((one) => one.name === taken),
    before.drawings,
  );
  return { extraction, collections, layouts, rules, styles, icons, palette };
}

/** How the code of a project is written, so that it can go on being written that way. */
export function codeOf(project: Project, pieces: CodeBefore['pieces'] = new Map()): CodeBefore {
  const plan = new EmissionPlan(project);
  const { extraction, layouts, rules, styles, icons, palette } = partsOf(plan, new Folders());
  const before = codeBefore(project.app);
  return {
    shared: new Map(styles.rules.map((rule) => [rule.className, styleOf(rule)])),
    files: new Map(
      rules.map((file) => {
        const written = styles.files.get(file.id)!;
        const values = namedIn(written.rules, paletteFor(written, palette));
        return [file.id, keptFile(file.rules, written, values)] as const;
      }),
    ),
    values: palette.names,
    drawings: icons.names,
    props: new Map(
      extraction.components.map(({ id, props }) => [
        id,
        new Map(
          props.map(({ proposed, what, at, byDefault }) => [
            proposed,
            { what, at, ...(byDefault === undefined ? {} : { byDefault }) },
          ]),
        ),
      ]),
    ),
    insides: new Map(
      layouts.layouts.map(({ id, screens, frame }) => [
        id,
        new Map(screens.map((key, i) => [key, keysInside(frame.insides[i])] as const)),
      ]),
    ),
    acts: new Map(
      [...plan.screens, ...plan.overlays.keys()].map((key) => [
        key,
        actNames(rootOf(plan, extraction, layouts, key), before.acts.get(key) ?? new Map(), isHooked),
      ]),
    ),
    rows: rowsIn(plan, extraction),
    pieces,
  };
}

/** What the rows of each screen are known by: those of its lists, and those that show records of collections. */
function rowsIn(plan: EmissionPlan, { lists }: Extraction): Map<string, Map<string, KeptRow>> {
  const found = new Map<string, Map<string, KeptRow>>();
  const put = (screen: string, key: string, row: KeptRow): void => {
    const rows = found.get(screen) ?? new Map<string, KeptRow>();
    found.set(screen, rows.set(key, row));
  };
  for (const [screen, all] of lists)
    for (const { data, records, rows } of all)
      rows.forEach((key, i) => put(screen, key, { id: String(records[i].id), list: data }));
  for (const { views } of plan.live.values())
    for (const { screen, rows } of views) for (const [key, id] of rows) put(screen, key, { id });
  return found;
}

/** The custom properties that a file can say. */
export function paletteFor({ asBefore }: FileStyles, palette: Palette): Pick<Palette, 'nameOf'> {
  if (!asBefore) return palette;
  const known = only.get(asBefore);
  if (known?.of === palette) return known.named;
  const named = onlyNamed(palette, asBefore.values);
  only.set(asBefore, { of: palette, named });
  return named;
}
const only = new WeakMap<FileBefore, { readonly of: Palette; readonly named: Pick<Palette, 'nameOf'> }>();

/** What is written in the file of a screen: without what its layout says, and with components taken out. */
export const rootOf = (
  plan: EmissionPlan,
  extraction: Extraction,
  layouts: Layouts,
  key: string,
): MarkupElement => layouts.insides.get(key) ?? extraction.roots.get(key) ?? emitScreenOf(plan, key).root;

/** The styles of all files. */
export const fileRules = (plan: EmissionPlan, extraction: Extraction, layouts: Layouts): FileRules[] => [
  ...[...plan.screens, ...plan.overlays.keys()].map((key) => ({
    id: screenFile(key),
    rules: usedRules(
      rootOf(plan, extraction, layouts, key),
      extraction.rules.get(key) ?? emitScreenOf(plan, key).rules,
    ),
  })),
  ...layouts.layouts.map(({ name, frame }) => ({
    id: `layout ${name}`,
    rules: usedRules(frame.root, frame.rules),
  })),
  ...extraction.components.map(({ name, rules }) => ({ id: componentFile(name), rules })),
];

const used = new WeakMap<
  MarkupElement,
  { readonly of: readonly StyleRule[]; readonly rules: readonly StyleRule[] }
>();

export const usedRules = (root: MarkupElement, rules: readonly StyleRule[]): readonly StyleRule[] => {
  const known = used.get(root);
  if (known?.of === rules) return known.rules;
  const classes = classesIn(root);
  const found = rules.filter((rule) => classes.has(rule.className));
  used.set(root, { of: rules, rules: found });
  return found;
};

interface Looks {
  readonly styles: SharedStyles;
  readonly palette: Palette;
}
interface Worked extends Looks {
  readonly rules: readonly FileRules[];
  readonly before: CodeBefore;
  readonly layers: Project['app']['layers'];
  readonly tokens: Project['app']['tokens'];
}
/** By the design as it was drawn: what is said of it changes far more often. */
const lastWorked = new WeakMap<Project['design'], Worked>();

/** What the looks of all files have in common: that of last time where none looks otherwise. */
function looksOf({ design, app }: Project, rules: readonly FileRules[], before: CodeBefore): Looks {
  const { layers, tokens } = app;
  const drawn = asDrawn(design);
  const last = lastWorked.get(drawn);
  if (
    last?.before === before &&
    last.layers === layers &&
    last.tokens === tokens &&
    areAlike(last.rules, rules)
  )
    return last;
  const shared = shareStyles(rules, before, { isNamed: (key) => layers[key]?.name !== undefined });
  const styles = last ? withFilesOf(last.styles, shared) : shared;
  const rulesOf = (settled: boolean): StyleRule[] =>
    [...styles.files.values()].flatMap((file) => ((file.asBefore !== null) === settled ? file.rules : []));
  const named = paletteOf([...styles.rules, ...rulesOf(false)], (taken) => Object.hasOwn(tokens, taken), {
    rules: rulesOf(true),
    values: before.values,
  });
  const palette = last && equalJson([...last.palette.names], [...named.names]) ? last.palette : named;
  const worked = { rules, before, layers, tokens, styles, palette };
  lastWorked.set(drawn, worked);
  return worked;
}

/** Files whose styles became no others stay the very same: what was printed of them is right, still. */
function withFilesOf(last: SharedStyles, { rules, files }: SharedStyles): SharedStyles {
  return {
    rules: equalJson(last.rules, rules) ? last.rules : rules,
    files: new Map(
      [...files].map(([id, file]): [string, FileStyles] => {
        const known = last.files.get(id);
        return [id, known && areSame(known, file) ? known : file];
      }),
    ),
  };
}

const areSame = (one: FileStyles, other: FileStyles): boolean =>
  one.asBefore === other.asBefore &&
  equalJson(one.rules, other.rules) &&
  equalJson([...one.classes], [...other.classes]);

const areAlike = (some: readonly FileRules[], others: readonly FileRules[]): boolean =>
  some.length === others.length &&
  some.every(
    ({ id, rules }, i) =>
      id === others[i].id && (rules === others[i].rules || equalJson(rules, others[i].rules)),
  );
