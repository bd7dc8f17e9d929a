import { type EmittedProject } from '../emit/emitted.ts';
import { emitHtml } from '../emit/html/emit_html.ts';
import { emitReact } from '../emit/react/emit_react.ts';
import { emitVue } from '../emit/vue/emit_vue.ts';
import { cleanScreen } from '../intake/gate.ts';
import { assembleScreen } from '../intake/html/assemble.ts';
import type { PageReading } from '../intake/html/reading.ts';
import { emptyDesign } from '../model/design.ts';
import type { Project } from '../model/project.ts';
import { behaving } from '../testing/behaving.ts';
import { projectOf } from '../testing/build.ts';
import { chance } from '../testing/chance.ts';
import { mutateDocument } from '../testing/hostile.ts';
import { pageProblems } from '../testing/page_problems.ts';
import { richReading } from '../testing/rich_page.ts';
import { typeErrors } from '../testing/typecheck.ts';
import { vueProblems } from '../testing/vue_problems.ts';
import { ArchiveError, parseApp, parseDesign } from './archive.ts';

/** How many documents and screens are tried; the measurements try more. */
const COUNT = Number(process.env.TOVEL_HOSTILE_DOCUMENTS ?? 60);
const AT_ONCE = 100;

const page = (reading: PageReading) =>
  assembleScreen({ file: 'rich.html', screenKey: 'rich', title: 'Rich', asset: () => null }, reading).screen;

/** Emits what is added, and compiles it in lots. */
class Compiler {
  #emitted: EmittedProject[] = [];
  #said: unknown[] = [];
  #vue: EmittedProject[] = [];

  add(project: Project, what: unknown): void {
    this.#emitted.push(emitReact(project, 'Hostile'));
    // Its compiler is slow: every eighth.
    if (this.#emitted.length % 8 === 0) this.#vue.push(emitVue(project, 'Hostile'));
    const problems = pageProblems(emitHtml(project, 'Hostile'));
    if (problems.length) throw new Error(`${String(what)}: ${problems.slice(0, 3).join('; ')}`);
    this.#said.push(what);
    if (this.#emitted.length >= AT_ONCE) this.finish();
  }

  finish(): void {
    const errors = typeErrors(this.#emitted);
    expect(errors.map((error) => [error, this.#said[Number.parseInt(error, 10)]]).slice(0, 5)).toEqual([]);
    expect(vueProblems(this.#vue).slice(0, 5)).toEqual([]);
    this.#emitted = [];
    this.#vue = [];
    this.#said = [];
  }
}

test('a document with anything in it made hostile is refused in words, or its code still compiles', () => {
  const behaves = behaving();
  const rich = projectOf(page(richReading()));
  const random = chance(20261125);
  const compiler = new Compiler();
  let refused = 0;
  for (let i = 0; i < COUNT; i++) {
    const project = i % 2 ? rich : behaves;
    const isDesign = random() < (i % 2 ? 0.8 : 0.3);
    const mutated = mutateDocument(isDesign ? project.design : project.app, random);
    try {
      compiler.add(
        isDesign ? { ...project, design: parseDesign(mutated) } : { ...project, app: parseApp(mutated) },
        `document ${i}`,
      );
    } catch (error) {
      if (!(error instanceof ArchiveError)) throw error;
      expect(error.message).toMatch(/^(design|app)\.json: ./);
      refused++;
    }
  }
  compiler.finish();
  // Most of what is tried is refused; that some is let through shows that the rest is tried at all.
  expect(refused).toBeGreaterThan(COUNT / 4);
  expect(refused).toBeLessThan(COUNT * 0.95);
}, 7_200_000);

test('a page with anything in it made hostile comes in without that, and its code compiles', () => {
  const random = chance(20261126);
  const compiler = new Compiler();
  for (let i = 0; i < COUNT; i++) {
    let mutated = richReading();
    mutated = mutateDocument(mutated, random) as PageReading;
    let gate;
    try {
      gate = cleanScreen(page(mutated));
    } catch {
      // A reading of another shape does not come from a reader.
      continue;
    }
    if (!gate.screen) continue;
    parseDesign(
      JSON.parse(JSON.stringify({ ...emptyDesign, screens: [gate.screen], notices: gate.notices })),
    );
    compiler.add(projectOf(gate.screen), `screen ${i}`);
  }
  compiler.finish();
}, 7_200_000);
