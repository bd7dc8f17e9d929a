import { isRecord } from '../json/json.ts';

/** Texts that break what is glued together carelessly: of every language that Tovel writes, and of objects. */
export const HOSTILE: readonly string[] = [
  'constructor',
  'toString',
  '__proto__',
  'hasOwnProperty',
  'valueOf',
  'class',
  'default',
  'return',
  'await',
  'null',
  'React',
  'Fragment',
  'Array',
  'styles',
  'key',
  'ref',
  'children',
  '',
  ' ',
  '-',
  '0',
  '9lives',
  'a'.repeat(400),
  '日本語',
  '🦔',
  '\ud800',
  '\u2028',
  'a\nb',
  'a\\',
  "it's",
  '"',
  '`',
  '${alert(1)}',
  '{alert(1)}',
  '{...(fetch("x"))}b',
  'a={x} b',
  'x"><img src=x onerror=alert(1)>',
  '</style><script>alert(1)</script>',
  '</script>',
  '-->',
  '*/alert(1)/*',
  '**//alert(1)',
  '//',
  '$&',
  'javascript:alert(1)',
  'java\nscript:alert(1)',
  'data:text/html,x',
  'http://127.0.0.1:9/x',
  'url(http://127.0.0.1:9/x)',
  'url("http://127.0.0.1:9/x")',
  'red;}*{color:red',
  'red;background:url(http://127.0.0.1:9/x)',
  '@import "x"',
  '/a" onClick={alert(1)} b="',
  '/:constructor/*',
  '../../x',
  'a|b',
  'onclick',
  'dangerouslySetInnerHTML',
  'script',
  'iframe',
  'NaN',
];

/**
 * A JSON document with one thing of it made hostile: a key, a text, a number, a yes, or a whole part. Which, is up to
 * `random`; all else is as it was.
 */
export function mutateDocument(document: unknown, random: () => number): unknown {
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)];
  const places: { readonly holder: Record<string, unknown> | unknown[]; readonly key: string | number }[] =
    [];
  const copy = structuredClone(document);
  const visit = (value: unknown): void => {
    if (Array.isArray(value))
      value.forEach((one, key) => {
        places.push({ holder: value, key });
        visit(one);
      });
    else if (isRecord(value))
      for (const key of Object.keys(value)) {
        places.push({ holder: value, key });
        visit(value[key]);
      }
  };
  visit(copy);
  if (!places.length) return copy;
  const { holder, key } = pick(places);
  const held = (holder as Record<string | number, unknown>)[key];
  const set = (name: string | number, value: unknown): void => {
    Object.defineProperty(holder, name, { value, enumerable: true, configurable: true, writable: true });
  };
  const other: unknown[] = [pick(HOSTILE), null, {}, [], Infinity, -1, true, { kind: pick(HOSTILE) }];
  const kind = Math.floor(random() * 4);
  if (kind === 0 && !Array.isArray(holder)) {
    delete holder[key];
    set(pick(HOSTILE), held);
  } else if (kind === 1) set(key, pick(other));
  else if (kind === 2 && isRecord(held)) {
    Object.defineProperty(held, pick(HOSTILE), { value: pick(other), enumerable: true });
  } else if (typeof held === 'string') set(key, random() < 0.5 ? pick(HOSTILE) : held + pick(HOSTILE));
  else if (typeof held === 'number') set(key, pick([NaN, Infinity, -1, 0.5, 1e18, '1']));
  else set(key, pick(other));
  return copy;
}
