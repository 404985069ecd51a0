/** Where something stands in a tree: the keys on the way to it. */
export type Path = readonly string[];

/** A place where two people changed the same thing differently. */
export interface Clash {
  path: Path;
  mine: unknown;
  theirs: unknown;
}

export interface Merged<Value> {
  /** Everything that only one side changed; where both did, what is mine. */
  merged: Value;
  clashes: Clash[];
  /** What only they changed. */
  taken: Path[];
}

type Tree = { [key: string]: unknown };

const isTree = (value: unknown): value is Tree =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

const isSame = (one: unknown, other: unknown): boolean => {
  if (isTree(one) && isTree(other)) {
    const keys = new Set([...Object.keys(one), ...Object.keys(other)]);
    return [...keys].every((key) => isSame(one[key], other[key]));
  }
  return JSON.stringify(one) === JSON.stringify(other);
};

/**
 * Joins two changes of the same thing: `base` is what both started from. Objects are gone through
 * key by key; anything else, lists too, is one thing. { a: 1, b: 1 } with mine { a: 2, b: 1 } and
 * theirs { a: 1, b: 3 } → { a: 2, b: 3 }, no clash.
 */
export const mergeChanges = <Value>(base: Value, mine: Value, theirs: Value): Merged<Value> => {
  const clashes: Clash[] = [];
  const taken: Path[] = [];
  const walk = (was: unknown, ours: unknown, other: unknown, path: Path): unknown => {
    if (isSame(ours, other)) return ours;
    if (isSame(was, other)) return ours;
    if (isSame(was, ours)) {
      taken.push(path);
      return other;
    }
    if (isTree(ours) && isTree(other)) {
      const start = isTree(was) ? was : {};
      const keys = [...new Set([...Object.keys(ours), ...Object.keys(other)])];
      const joined = keys.map((key) => [
        key,
        walk(start[key], ours[key], other[key], [...path, key]),
      ]);
      return Object.fromEntries(joined.filter(([, value]) => value !== undefined));
    }
    clashes.push({ path, mine: ours, theirs: other });
    return ours;
  };
  const merged = walk(base, mine, theirs, []) as Value;
  return { merged, clashes, taken };
};

/** A copy in which the thing at a path is another; `undefined` takes it out. */
export const withAt = <Value>(whole: Value, [first, ...rest]: Path, value: unknown): Value => {
  if (first === undefined) return value as Value;
  const tree: Tree = isTree(whole) ? whole : {};
  const changed = { ...tree, [first]: withAt(tree[first], rest, value) };
  const left = Object.entries(changed).filter(([, one]) => one !== undefined);
  return Object.fromEntries(left) as Value;
};
