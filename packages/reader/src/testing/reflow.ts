import {
  addToDesign,
  applyChange,
  emptyApp,
  emptyDesign,
  EmissionPlan,
  emitScreenOf,
  type InputFile,
  printHtml,
  readBatch,
  takeIn,
} from '@tovel/core';
import { launchChromium } from '@tovel/renderer/chromium';
import { HeadlessHost } from '../headless.ts';

/** Something that goes wrong when a screen is shown at another width than it was drawn at. */
export interface ReflowFault {
  readonly file: string;
  readonly width: number;
  readonly kind: 'overlap' | 'cut off' | 'too wide' | 'resized';
  readonly what: string;
}

/** Of the width that a screen was drawn at. */
export const REFLOW_FACTORS = [0.75, 1, 1.5];

/**
 * Shows every drawing of a batch at three quarters, at the whole and at one and a half of its width, and finds what
 * overlaps there though it did not where it was drawn, what leaves the window, and text that is cut off.
 */
export async function measureReflow(files: readonly InputFile[]): Promise<ReflowFault[]> {
  const host = new HeadlessHost();
  const result = await readBatch(files, host);
  await host.close();
  const design = addToDesign(emptyDesign, result);
  const app = applyChange(emptyApp, takeIn({ design, app: emptyApp }, design.screens));
  const plan = new EmissionPlan({ design, app });
  const browser = await launchChromium('Measuring');
  const page = await browser.newPage({ javaScriptEnabled: true });
  const faults: ReflowFault[] = [];
  for (const screen of design.screens) {
    if (!screen.source.file.endsWith('.svg')) continue;
    await page.setViewportSize({ width: screen.width, height: screen.height });
    await page.setContent(printHtml(emitScreenOf(plan, screen.key), () => 'data:,', design.fonts));
    // Transformers that keep the names of functions call this where they find it.
    await page.evaluate('globalThis.__name ??= (value) => value');
    const usual = new Set((await page.evaluate(findFaults)).map((fault) => fault.what));
    const sizes = new Map(await page.evaluate(iconSizes));
    for (const factor of REFLOW_FACTORS) {
      const width = Math.round(screen.width * factor);
      await page.setViewportSize({ width, height: screen.height });
      const found = await page.evaluate(findFaults);
      for (const fault of found)
        if (factor === 1 ? fault.kind !== 'overlap' : !usual.has(fault.what))
          faults.push({ file: screen.source.file, width, ...fault });
      for (const [key, size] of await page.evaluate(iconSizes)) {
        const drawn = sizes.get(key);
        if (drawn !== undefined && Math.abs(size - drawn) > drawn * 0.2)
          faults.push({ file: screen.source.file, width, kind: 'resized', what: key });
      }
    }
  }
  await browser.close();
  return faults;
}

/** Runs in the page: how high each small picture is. */
function iconSizes(): [key: string, height: number][] {
  return [...document.querySelectorAll('svg[data-key], img[data-key]')].flatMap(
    (node): [string, number][] => {
      const { width, height } = node.getBoundingClientRect();
      return Math.max(width, height) <= 64 ? [[node.getAttribute('data-key')!, height]] : [];
    },
  );
}

/** Runs in the page. */
function findFaults(): { kind: ReflowFault['kind']; what: string }[] {
  const faults: { kind: ReflowFault['kind']; what: string }[] = [];
  const width = document.documentElement.clientWidth;
  const nodes = [...document.querySelectorAll<HTMLElement>('[data-key]')];
  const nameOf = (node: Element): string =>
    `${node.getAttribute('data-key')} ${(node.textContent ?? '').trim().slice(0, 24)}`;
  const shown = nodes.filter((node) => node.getBoundingClientRect().width > 0);
  const inner = (node: Element): { x: number; y: number; right: number; bottom: number } => {
    if (node.children.length === 0 && node.textContent?.trim()) {
      const range = document.createRange();
      range.selectNodeContents(node);
      const { x, y, right, bottom } = range.getBoundingClientRect();
      return { x, y, right, bottom };
    }
    const { x, y, right, bottom } = node.getBoundingClientRect();
    return { x, y, right, bottom };
  };
  // What was parked beside the screen is no part of it.
  const isParked = (node: Element): boolean => {
    for (let at: Element | null = node; at; at = at.parentElement) {
      const style = getComputedStyle(at);
      if (style.position === 'absolute' && (parseFloat(style.left) >= width || parseFloat(style.top) < -4))
        return true;
    }
    return false;
  };
  const leaves = shown.filter((node) => !node.querySelector('[data-key]') && !isParked(node));
  for (const node of leaves) {
    const box = inner(node);
    if (box.right > width + 1 || box.x < -1) faults.push({ kind: 'too wide', what: nameOf(node) });
    const holder = node.parentElement;
    if (holder && node.textContent?.trim()) {
      const outer = holder.getBoundingClientRect();
      if (holder.hasAttribute('data-key') && (box.right > outer.right + 2 || box.bottom > outer.bottom + 3))
        faults.push({ kind: 'cut off', what: nameOf(node) });
    }
  }
  const boxes = leaves.map((node) => ({ node, box: inner(node), isText: !!node.textContent?.trim() }));
  for (let i = 0; i < boxes.length; i++)
    for (let j = i + 1; j < boxes.length; j++) {
      const [a, b] = [boxes[i], boxes[j]];
      if (!a.isText && !b.isText) continue;
      const x = Math.min(a.box.right, b.box.right) - Math.max(a.box.x, b.box.x);
      const y = Math.min(a.box.bottom, b.box.bottom) - Math.max(a.box.y, b.box.y);
      if (x > 2 && y > 4) faults.push({ kind: 'overlap', what: `${nameOf(a.node)} / ${nameOf(b.node)}` });
    }
  return faults;
}
