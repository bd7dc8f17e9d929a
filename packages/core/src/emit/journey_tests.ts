import { graphOf } from '../graph/graph.ts';
import { checkJourney } from '../journeys/walk.ts';
import type { Interaction, Journey } from '../model/app.ts';
import { elementOfInteraction } from '../model/interaction.ts';
import type { Project } from '../model/project.ts';
import { type EmittedScreen, isCounted, isElement, isText, type MarkupElement } from './form/markup.ts';
import { PRINT_WIDTH } from './line_width.ts';
import { indented, joined, onLines, printed, script, type Script } from './script.ts';
import { EmissionPlan, emitScreenOf } from './form/plan.ts';
import { testedAddress } from './tested/links.ts';

/**
 * Journeys as Playwright tests of the delivered app. A journey that is broken is left out; whoever looks at findings
 * sees it there.
 */
export function printJourneyTests(project: Project, only?: string): string {
  const plan = new EmissionPlan(project);
  const graph = graphOf(plan.project);
  const tests = Object.entries(plan.project.app.journeys)
    .filter(
      ([id, journey]) =>
        (only === undefined || id === only) && !checkJourney(plan.project, graph, journey).problem,
    )
    .sort(([, a], [, b]) => (a.name < b.name ? -1 : 1))
    .map(([, journey]) => printTest(plan, journey));
  return script`import { expect, test } from '@playwright/test';\n${joined(tests.map((test) => script`\n${test}\n`))}`
    .text;
}

function printTest(plan: EmissionPlan, journey: Journey): Script {
  const { project } = plan;
  const graph = graphOf(project);
  const { places, screens } = checkJourney(project, graph, journey);
  const entry = project.app.screens[journey.start];
  const lines = [script`await page.goto(${testedAddress(entry.route, entry.params)});`];
  journey.steps.forEach((step, i) => {
    const here = emitScreenOf(plan, places[i]);
    const scope = plan.overlays.has(places[i]) ? overlayLocator(plan, places[i]) : script`page`;
    if (step.kind === 'enter') {
      const field = fieldLocator(here, step.element, scope);
      lines.push(script`await ${field}.fill(${step.text});`);
      return;
    }
    const element = elementOfInteraction(step.interaction);
    const wired = graph.elements
      .get(places[i])!
      .find((state) => state.element.key === element)!
      .wired.find((one) => one.key === step.interaction || one.component !== undefined)!;
    lines.push(...gestureLines(wired.interaction, here, element, scope));
    const next = places[i + 1];
    if (plan.overlays.has(next))
      lines.push(script`await expect(${overlayLocator(plan, next)}).toBeVisible();`);
    else {
      const { route } = project.app.screens[screens[i + 1]];
      lines.push(script`await expect(page).toHaveURL(${printed(urlPattern(route))});`);
      if (plan.overlays.has(places[i]))
        lines.push(script`await expect(${overlayLocator(plan, places[i])}).toBeHidden();`);
    }
  });
  return onLines([
    script`test(${journey.name}, async ({ page }) => {`,
    ...lines.flatMap(wrapped),
    script`});`,
  ]);
}

/** A line within a test; a call that is too long has its argument on lines of its own. */
function wrapped(line: Script): Script[] {
  const whole = indented(line, 1);
  if (whole.length <= PRINT_WIDTH) return [whole];
  const parts = /^(await (?:page|expect\(.*?\)))(\..*?\))(\.\w+\(.*\);)$/.exec(line.text);
  return parts ? parts.slice(1).map((part, i) => indented(printed(part), i ? 2 : 1)) : [whole];
}

const overlayLocator = (plan: EmissionPlan, key: string): Script =>
  script`page.locator(${`#overlay-${plan.overlays.get(key)}`})`;

function gestureLines(
  interaction: Interaction,
  screen: EmittedScreen,
  element: string,
  scope: Script,
): Script[] {
  const { on, key, ms } = interaction;
  if (on === 'key') return [script`await page.keyboard.press(${key ?? 'Enter'});`];
  if (on === 'load') return [];
  if (on === 'after') return [script`// Goes on by itself after ${ms ?? 0} ms.`];
  const locator = elementLocator(screen, element, scope);
  switch (on) {
    case 'double-press':
      return [script`await ${locator}.dblclick();`];
    case 'long-press':
      return [script`await ${locator}.click({ delay: 600 });`];
    case 'hover':
      return [script`await ${locator}.hover();`];
    case 'submit':
      return [script`await ${locator}.evaluate((form) => form.closest('form')?.requestSubmit());`];
    case 'swipe':
      return [
        script`await ${locator}.hover();`,
        script`await page.mouse.down();`,
        script`await page.mouse.move(${interaction.side === 'right' ? 400 : interaction.side === 'left' ? 0 : 200}, ${interaction.side === 'bottom' ? 600 : interaction.side === 'top' ? 0 : 300}, { steps: 8 });`,
        script`await page.mouse.up();`,
      ];
    case 'press':
    case 'change':
      return [script`await ${locator}.click();`];
  }
}

/** Everything on a screen that has this role, in the order of the page. */
function withRole(root: MarkupElement, role: string): MarkupElement[] {
  const found: MarkupElement[] = [];
  const visit = (node: MarkupElement): void => {
    if (roleOf(node) === role) found.push(node);
    for (const child of node.children) if (isElement(child)) visit(child);
  };
  visit(root);
  return found;
}

function roleOf(node: MarkupElement): string | null {
  const authored = node.attributes.role;
  if (node.form === 'other' || authored === 'link') return 'link';
  if (typeof authored === 'string') return authored;
  if (node.tag === 'button') return 'button';
  if (node.tag === 'a') return node.link ? 'link' : null;
  if (node.tag === 'textarea') return 'textbox';
  if (node.tag === 'select') return 'combobox';
  if (node.tag !== 'input') return null;
  const type = String(node.attributes.type ?? 'text');
  if (type === 'checkbox' || type === 'radio') return type;
  if (type === 'search') return 'searchbox';
  if (type === 'submit' || type === 'button') return 'button';
  return type === 'number' ? 'spinbutton' : 'textbox';
}

/** The accessible name: what is said for it, else its texts and pictures. */
function nameOf(node: MarkupElement): string {
  const said = node.attributes['aria-label'] ?? node.attributes.alt ?? node.attributes.title;
  if (typeof said === 'string' && said) return said;
  if (node.attributes['aria-hidden']) return '';
  return node.children
    .map((child) => (isText(child) ? child.text : isElement(child) ? nameOf(child) : ''))
    .join(' ')
    .replace(/\s+/g, ' ')
    .trim();
}

const byKey = (root: MarkupElement, key: string): MarkupElement | null => {
  if (root.key === key) return root;
  for (const child of root.children) {
    const found = isElement(child) ? byKey(child, key) : null;
    if (found) return found;
  }
  return null;
};

function elementLocator({ root }: EmittedScreen, element: string, scope: Script): Script {
  const node = byKey(root, element);
  const role = node && roleOf(node);
  if (!node || !role) return node ? textLocator(node, scope) : script`${scope}.locator('body')`;
  const name = nameOf(node);
  const same = withRole(root, role).filter((other) => nameOf(other) === name);
  const nth = same.length > 1 ? script`.nth(${same.indexOf(node)})` : script``;
  return script`${scope}.getByRole(${role}, { name: ${name}, exact: true })${nth}`;
}

const textLocator = (node: MarkupElement, scope: Script): Script =>
  script`${scope}.getByText(${nameOf(node)})`;

function fieldLocator({ root }: EmittedScreen, element: string, scope: Script): Script {
  const node = byKey(root, element);
  if (!node) return script`${scope}.locator('input')`;
  const said = node.attributes['aria-label'];
  if (typeof said === 'string' && said) return script`${scope}.getByLabel(${said}, { exact: true })`;
  const { placeholder } = node.attributes;
  if (typeof placeholder === 'string' && placeholder)
    return script`${scope}.getByPlaceholder(${placeholder})`;
  return elementLocator({ root, rules: [] }, element, scope);
}

/** A pattern of the addresses of a route, with any query. */
function urlPattern(route: string): string {
  const parts = route
    .split('/')
    .filter(Boolean)
    .map((part) =>
      part === '*'
        ? '(/.*)?'
        : part.endsWith('?')
          ? '(/[^/?#]+)?'
          : part.startsWith(':')
            ? '/[^/?#]+'
            : `/${part.replace(/[.~]/g, '\\$&')}`,
    );
  return `/^https?:\\/\\/[^/]+${(parts.join('') || '/').replaceAll('/', '\\/').replaceAll('[^\\/', '[^/')}([?#]|$)/`;
}

/** The element that is pressed when the `index`th link or button of a screen is, counted over what is open over it. */
export function pressedElement(
  plan: EmissionPlan,
  shown: readonly string[],
  index: number,
): { readonly place: string; readonly element: string } | null {
  return nthOf(plan, shown, index, isCounted);
}

/** The field that is the `index`th of a screen. */
export const enteredElement = (plan: EmissionPlan, shown: readonly string[], index: number) =>
  nthOf(plan, shown, index, (node) => ['input', 'textarea', 'select'].includes(node.tag));

function nthOf(
  plan: EmissionPlan,
  shown: readonly string[],
  index: number,
  isOne: (node: MarkupElement) => boolean,
): { readonly place: string; readonly element: string } | null {
  let left = index;
  for (const place of shown) {
    let found: string | null = null;
    const visit = (node: MarkupElement): void => {
      if (isOne(node) && left-- === 0) found = node.key;
      for (const child of node.children) if (isElement(child) && left >= 0) visit(child);
    };
    visit(emitScreenOf(plan, place).root);
    if (found !== null) return { place, element: found };
    if (left < 0) return null;
  }
  return null;
}
