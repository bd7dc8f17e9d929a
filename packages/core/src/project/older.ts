import { isRecord } from '../json/json.ts';
import { attributeRule, isAttributeName } from '../vocabulary/attributes.ts';
import { TAGS, writtenTag } from '../vocabulary/tags.ts';
import { VECTOR_ATTRIBUTES } from '../vocabulary/vectors.ts';

/** Elements and attributes that have never been part of a screen: a document that has them is refused, not mended. */
const NEVER_TAG = /^(script|style|iframe|frame|object|embed|link|meta|base|template|noscript)$/i;
const NEVER_ATTRIBUTE =
  /^(on.*|src|srcdoc|style|srcset|action|formaction|dangerouslysetinnerhtml|ref|key|children)$/i;

const drawn: ReadonlySet<string> = new Set(VECTOR_ATTRIBUTES);

/**
 * A design document as it would be written now: documents of before may hold plain elements and attributes that are not
 * written any more, such as a page's own elements. Whatever is not plain is left for the check that follows. The same
 * value where there is nothing to do.
 */
export function asWrittenNow(json: unknown): unknown {
  if (!isRecord(json) || !Array.isArray(json.screens)) return json;
  const screens = mapped(json.screens, (screen) => {
    if (!isRecord(screen)) return screen;
    const root = element(screen.root);
    return root === screen.root ? screen : { ...screen, root };
  });
  return screens === json.screens ? json : { ...json, screens };
}

/** An app document as it would be written now: what was a condition is a variable that is yes or no. */
export function appAsWrittenNow(json: unknown): unknown {
  if (!isRecord(json)) return json;
  const { conditions, ...rest } = json;
  const app =
    isRecord(conditions) && json.variables === undefined ? { ...rest, variables: conditions } : json;
  const { setAside } = app as Readonly<Record<string, unknown>>;
  if (!isRecord(setAside)) return app;
  const entries = Object.entries(setAside).map(([id, one]) => {
    if (!isRecord(one) || !Array.isArray(one.entries)) return [id, one];
    const renamed = mapped(one.entries, (entry) =>
      isRecord(entry) && entry.table === 'conditions' ? { ...entry, table: 'variables' } : entry,
    );
    return [id, renamed === one.entries ? one : { ...one, entries: renamed }];
  });
  return { ...app, setAside: Object.fromEntries(entries) };
}

function element(json: unknown): unknown {
  if (!isRecord(json)) return json;
  const tag =
    typeof json.tag === 'string' && !NEVER_TAG.test(json.tag) && isPlain(json.tag) ? json.tag : null;
  const now = tag === null || TAGS.has(tag) ? json.tag : writtenTag(tag, false);
  const attributes = without(
    json.attributes,
    (name) =>
      isAttributeName(name) && !NEVER_ATTRIBUTE.test(name) && !attributeRule(String(now ?? 'span'), name),
  );
  const children = Array.isArray(json.children) ? mapped(json.children, element) : json.children;
  const vector = drawing(json.vector);
  const isSame =
    now === json.tag &&
    attributes === json.attributes &&
    children === json.children &&
    vector === json.vector;
  return isSame
    ? json
    : {
        ...json,
        ...(now === undefined ? {} : { tag: now }),
        ...(attributes === undefined ? {} : { attributes }),
        children,
        ...(vector === undefined ? {} : { vector }),
      };
}

function drawing(json: unknown): unknown {
  if (!isRecord(json)) return json;
  const attributes = without(
    json.attributes,
    (name) => isAttributeName(name) && !NEVER_ATTRIBUTE.test(name) && !drawn.has(name),
  );
  const children = Array.isArray(json.children) ? mapped(json.children, drawing) : json.children;
  return attributes === json.attributes && children === json.children
    ? json
    : { ...json, attributes, children };
}

const isPlain = (tag: string): boolean => /^[a-z][a-z0-9]*(-[a-z0-9]+)*$/i.test(tag);

function without(json: unknown, goes: (name: string) => boolean): unknown {
  if (!isRecord(json) || !Object.keys(json).some(goes)) return json;
  return Object.fromEntries(Object.entries(json).filter(([name]) => !goes(name)));
}

function mapped(list: readonly unknown[], map: (one: unknown) => unknown): readonly unknown[] {
  const made = list.map(map);
  return made.every((one, i) => one === list[i]) ? list : made;
}
