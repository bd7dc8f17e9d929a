import { stat } from 'node:fs/promises';
import path from 'node:path';
import {
  causeOptions,
  COMPARED_WIDTHS,
  type ComparedView,
  compareDrawn,
  comparisonAsSarif,
  comparisonAsText,
  hashOf,
  heardFindings,
  type HeardView,
  type InputFile,
  isGrave,
  type Project,
  type ProjectArchive,
  screenName,
  screensByKey,
  SWEPT_WIDTHS,
  type SweptScreen,
  typeOfFile,
  type View,
  viewsOf,
} from '@tovel/core';
import {
  appOf,
  decoded,
  differencePicture,
  type DrawnPage,
  drawReference,
  drawRunning,
  type FileStore,
  listenTo,
  REFERENCES,
  type ReferenceKind,
  Renderer,
  type RunningApp,
  sweepView,
} from '@tovel/renderer';
import { type Command, EXIT, Misuse, type Output, parseArguments } from './command.ts';
import { readInputs, readProject, writeOut } from './files.ts';

const FORMATS = ['json', 'text', 'sarif'];
const USUAL_MOST = 0.5;

export const compare: Command = {
  usage: 'tovel compare PROJECT [--against DIR|TOVEL] [--widths W,W] [--max PERCENT] [--sweep] [--listen]',
  summary: 'tells whether what runs is what was drawn, and what differs',
  help: `Draws each screen of the running app and its source in a headless Chromium, and prints
{views: [{screen, width, percent, causes, unexplained, problems}], sweep, heard}. PROJECT is a .tovel file.

  --against WHAT    a folder of sources in place of those in the project, or another .tovel
                    file, whose app is then the reference
  --reference KIND  source (the default), picture: pictures that came with the screens, pages: the
                    plain pages that the project can be written as, or vue: the app in Vue
  --widths W,W      widths in px at which pages are compared: ${COMPARED_WIDTHS.join(',')} where not
                    given; drawings are compared at their own
  --max PERCENT     ends with 1 when more pixels of a screen differ: ${USUAL_MOST} where not given
  --sweep           looks at each screen from ${SWEPT_WIDTHS[0]} to ${SWEPT_WIDTHS.at(-1)} px, too: what sticks out, overlaps,
                    is cut off, too small to press or to read, or of too little contrast
  --listen          goes through each screen by the Tab key, and holds the rules of axe-core against
                    it, headings, and contrast with focus and pointer; ends with 1 where
                    something is critical or serious
  --pictures DIR    writes both pictures of each screen, and where they differ
  --format FORMAT   json (the default), text (lines for people) or sarif (SARIF 2.1.0)`,
  async run(args, output) {
    const { paths, options } = parseArguments(
      args.map((arg) => (arg === '--sweep' || arg === '--listen' ? `${arg}=yes` : arg)),
      ['sweep', 'listen', 'against', 'reference', 'widths', 'max', 'pictures', 'format'],
    );
    const widths = options.widths === undefined ? COMPARED_WIDTHS : widthsOf(options.widths);
    const max = options.max === undefined ? USUAL_MOST : Number(options.max);
    if (!(max >= 0 && max <= 100)) throw new Misuse('--max takes percent, from 0 to 100.');
    const kind = options.reference ?? 'source';
    if (!(REFERENCES as readonly string[]).includes(kind))
      throw new Misuse(`--reference takes ${REFERENCES.join(', ')}.`);
    const format = options.format ?? 'json';
    if (!FORMATS.includes(format)) throw new Misuse(`--format takes ${FORMATS.join(', ')}.`);
    const project = await readProject(paths[0]);
    const renderer = new Renderer();
    try {
      const reference = await referenceOf(options.against, project, kind as ReferenceKind, renderer, output);
      const files = storeOf(project);
      const app = await appOf(project, project.name, files);
      const compared: ComparedView[] = [];
      for (const view of viewsOf(project, widths)) {
        output.say(`${screenName(project, view.screen)} at ${view.width} px`);
        compared.push(await compareView(renderer, project, app, view, reference, options.pictures));
      }
      const swept = options.sweep === undefined ? [] : await sweep(renderer, project, app, output);
      const heard =
        options.listen === undefined
          ? []
          : await listen(renderer, project, app, viewsOf(project, widths), output);
      const printed = {
        json: () => asJson({ views: compared, sweep: swept, heard }),
        text: () => comparisonAsText(project, compared, swept, heard),
        sarif: () => asJson(comparisonAsSarif(project, compared, max, swept, heard)),
      };
      output.out(printed[format as keyof typeof printed]());
      return compared.some(({ percent }) => percent === null || percent > max) ||
        heard.some(({ findings }) => findings.some(isGrave))
        ? EXIT.findings
        : EXIT.good;
    } finally {
      await renderer.close();
    }
  },
};

type Reference = (view: View) => Promise<DrawnPage>;

async function compareView(
  renderer: Renderer,
  project: Project,
  app: RunningApp,
  view: View,
  reference: Reference,
  pictures: string | undefined,
): Promise<ComparedView> {
  try {
    const [was, is] = await Promise.all([reference(view), drawRunning(renderer, app, project, view)]);
    const drawing = screensByKey(project.design).get(view.drawing)!;
    const found = compareDrawn(decoded(was), decoded(is), causeOptions(project, drawing));
    if (pictures !== undefined) {
      const name = path.join(pictures, `${view.screen}-${view.width}`);
      await writeOut(`${name}-reference.png`, was.png);
      await writeOut(`${name}-running.png`, is.png);
      await writeOut(`${name}-difference.png`, differencePicture(found));
    }
    return {
      ...view,
      percent: Math.round(found.share * 10_000) / 100,
      causes: found.causes,
      unexplained: Math.round(found.unexplained * 100) / 100,
      problems: [...new Set([...was.rendering.problems, ...is.rendering.problems])],
    };
  } catch (error) {
    return { ...view, percent: null, causes: [], unexplained: 0, problems: [(error as Error).message] };
  }
}

/** Each screen at all widths. */
async function sweep(
  renderer: Renderer,
  project: Project,
  app: RunningApp,
  output: Output,
): Promise<SweptScreen[]> {
  const found: SweptScreen[] = [];
  for (const view of screensOf(project)) {
    output.say(`${screenName(project, view.screen)} from ${SWEPT_WIDTHS[0]} to ${SWEPT_WIDTHS.at(-1)} px`);
    found.push(await sweepView(view, (at) => drawRunning(renderer, app, project, at, { isMeasured: true })));
  }
  return found;
}

/** Each view as those meet it who hear it, or go through it by keys. */
async function listen(
  renderer: Renderer,
  project: Project,
  app: RunningApp,
  views: readonly View[],
  output: Output,
): Promise<HeardView[]> {
  const heard: HeardView[] = [];
  for (const view of views) {
    output.say(`${screenName(project, view.screen)} at ${view.width} px, by ear and by keys`);
    await drawRunning(renderer, app, project, view, {
      isMeasured: true,
      before: async (page) => void heard.push({ ...view, findings: heardFindings(await listenTo(page)) }),
    });
  }
  return heard;
}

/** Each screen once, whatever widths it is compared at. */
const screensOf = (project: Project): View[] => [
  ...new Map(viewsOf(project, [SWEPT_WIDTHS[0]]).map((view) => [view.screen, view])).values(),
];

const asJson = (value: unknown): string => `${JSON.stringify(value, null, 1)}\n`;

/** What the app is compared with: its own sources, those of a folder, or the app of another project. */
async function referenceOf(
  against: string | undefined,
  project: ProjectArchive,
  kind: ReferenceKind,
  renderer: Renderer,
  output: Output,
): Promise<Reference> {
  const info = against === undefined ? null : await stat(against).catch(() => null);
  if (against !== undefined && !info) throw new Misuse(`There is no file or folder ${against}.`);
  if (!info) return (view) => drawReference(renderer, project, view, storeOf(project), kind);
  if (info.isDirectory()) {
    const { design, files } = withSources(project, await readInputs([against!], output));
    return (view) => drawReference(renderer, { ...project, design }, view, files, kind);
  }
  const other = await readProject(against);
  const app = await appOf(other, other.name, storeOf(other));
  return (view) => {
    const screen = sameScreen(project, other, view.screen);
    if (screen === null)
      throw new Error(`“${screenName(project, view.screen)}” is not in ${path.basename(against!)}.`);
    return drawRunning(renderer, app, other, { ...view, screen });
  };
}

/** A screen of another project: of that key, else of that name. */
function sameScreen(project: Project, other: Project, key: string): string | null {
  const known = viewsOf(other, [1280]).map(({ screen }) => screen);
  if (known.includes(key)) return key;
  const name = screenName(project, key);
  return known.find((screen) => screenName(other, screen) === name) ?? null;
}

/** The project's design with files of a folder in place of those that it came from. */
function withSources(
  project: ProjectArchive,
  inputs: readonly InputFile[],
): { readonly design: Project['design']; readonly files: FileStore } {
  const bytes = new Map(project.bytes);
  const assets = new Map(project.design.assets.map((asset) => [asset.file, asset]));
  for (const input of inputs) {
    const hash = hashOf(input.bytes);
    bytes.set(hash, input.bytes);
    assets.set(input.path, {
      hash,
      type: typeOfFile(input.path),
      size: input.bytes.length,
      file: input.path,
    });
  }
  const design = { ...project.design, assets: [...assets.values()] };
  return { design, files: storeOf({ design, bytes }) };
}

function storeOf({ design, bytes }: Pick<ProjectArchive, 'design' | 'bytes'>): FileStore {
  const types = new Map(design.assets.map(({ hash, type }) => [hash, type]));
  return async (hash) => {
    const [type, found] = [types.get(hash), bytes.get(hash)];
    return type && found ? { type, bytes: found } : null;
  };
}

function widthsOf(text: string): number[] {
  const widths = text.split(',').map(Number);
  if (widths.some((width) => !Number.isInteger(width) || width < 200 || width > 4000))
    throw new Misuse('--widths takes whole numbers of px from 200 to 4000, parted by commas.');
  return widths;
}
