import { sameList } from './kept.ts';

/** A function of an object that works out once what follows from it, for as long as the object is there. */
export function onceFor<K extends object, V>(work: (of: K) => V): (of: K) => V {
  const known = new WeakMap<K, V>();
  return (of) => {
    const found = known.get(of);
    if (found !== undefined || known.has(of)) return found as V;
    const made = work(of);
    known.set(of, made);
    return made;
  };
}

/** The same of a function that looks at other values, too: it works out anew where one of these is not the very one of before. */
export function whileSame<K extends object, D extends readonly unknown[], V>(
  work: (of: K, ...others: D) => V,
): (of: K, ...others: D) => V {
  const known = new WeakMap<K, { readonly others: D; readonly made: V }>();
  return (of, ...others) => {
    const last = known.get(of);
    if (last && sameList(last.others, others)) return last.made;
    const made = work(of, ...others);
    known.set(of, { others, made });
    return made;
  };
}

/** The same of a function of two, the second of which is an object or a key. */
export function onceForBoth<K extends object, L, V>(work: (of: K, other: L) => V): (of: K, other: L) => V {
  const withObjects = onceFor((of: K) => onceFor((other: L & object) => work(of, other)));
  const withKeys = onceFor<K, Map<L, V>>(() => new Map());
  return (of, other) => {
    if (typeof other === 'object' && other !== null) return withObjects(of)(other);
    const known = withKeys(of);
    const found = known.get(other);
    if (found !== undefined || known.has(other)) return found as V;
    const made = work(of, other);
    known.set(other, made);
    return made;
  };
}
