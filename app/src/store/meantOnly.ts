type Tree = Record<string, unknown>;

const isTree = (value: unknown): value is Tree =>
  typeof value === 'object' && value !== null && !Array.isArray(value) && !ArrayBuffer.isView(value);
const idOf = (item: unknown): string | null =>
  isTree(item) && typeof item['id'] === 'string' ? item['id'] : null;
const haveIds = (list: readonly unknown[]) => list.every((item) => idOf(item) !== null);

/** The four states of one value: what the change saw, what it made of that, what is stored by now, what it made of that. */
interface States<T> {
  seen: T;
  meant: T;
  stored: T;
  made: T;
}

/**
 * A change keeps to what it means. It may have been put together from what a screen showed, `{ ...shown, x: 3 }`, while somebody else
 * changed `y`: of what it made of the stored state only that stays which it changed of the state that it saw; all else stays as it is
 * stored. Lists go by the ids of their things, other lists place by place where they are equally long.
 */
export function meantOnly<T>({ seen, meant, stored, made }: States<T>): T {
  if (Object.is(seen, meant) || isEqual(seen, meant)) return stored;
  const all = [seen, meant, stored, made];
  if (all.every(isTree)) return tree(seen as Tree, meant as Tree, stored as Tree, made as Tree) as T;
  if (all.every(Array.isArray))
    return list(seen as unknown[], meant as unknown[], stored as unknown[], made as unknown[]) as T;
  return made;
}

function tree(seen: Tree, meant: Tree, stored: Tree, made: Tree): Tree {
  const out: Tree = {};
  for (const key of new Set([...Object.keys(stored), ...Object.keys(made)])) {
    const isStored = Object.hasOwn(stored, key);
    if (!Object.hasOwn(made, key)) {
      // taken out, or put there by somebody else
      if (!Object.hasOwn(seen, key)) out[key] = stored[key];
    } else if (isStored && Object.hasOwn(seen, key) && Object.hasOwn(meant, key))
      out[key] = meantOnly({ seen: seen[key], meant: meant[key], stored: stored[key], made: made[key] });
    // what it put back because it saw it, though somebody else had taken it out
    else if (!isStored && Object.hasOwn(seen, key) && isEqual(seen[key], meant[key])) continue;
    else out[key] = isStored && !Object.hasOwn(meant, key) ? stored[key] : made[key];
  }
  return out;
}

function list(seen: unknown[], meant: unknown[], stored: unknown[], made: unknown[]): unknown[] {
  if ([seen, meant, stored, made].every(haveIds)) return things(seen, meant, stored, made);
  const isAlong = [meant, stored, made].every((l) => l.length === seen.length);
  return isAlong
    ? stored.map((_, i) => meantOnly({ seen: seen[i], meant: meant[i], stored: stored[i], made: made[i] }))
    : made;
}

function things(seen: unknown[], meant: unknown[], stored: unknown[], made: unknown[]): unknown[] {
  const by = (of: unknown[]) => new Map(of.map((item) => [idOf(item)!, item]));
  const [wasSeen, wasMeant, isStored, isMade] = [by(seen), by(meant), by(stored), by(made)];
  const kept = (id: string) => {
    const [there, now] = [isStored.get(id), isMade.get(id)];
    if (there === undefined) {
      const [before, after] = [wasSeen.get(id), wasMeant.get(id)];
      return before !== undefined && isEqual(before, after) ? undefined : now;
    }
    if (now === undefined) return wasSeen.has(id) ? undefined : there;
    return wasSeen.has(id) && wasMeant.has(id)
      ? meantOnly({ seen: wasSeen.get(id), meant: wasMeant.get(id), stored: there, made: now })
      : now;
  };
  // in the order that was made, and what somebody else has added behind what it stood behind
  const order = [...isMade.keys()];
  let behind: string | null = null;
  for (const id of isStored.keys()) {
    if (!isMade.has(id)) order.splice(behind === null ? 0 : order.indexOf(behind) + 1, 0, id);
    behind = id;
  }
  return order.map(kept).filter((item) => item !== undefined);
}

/** Whether two values say the same; numbers that are none are alike. */
function isEqual(a: unknown, b: unknown): boolean {
  if (Object.is(a, b)) return true;
  if (Array.isArray(a) && Array.isArray(b))
    return a.length === b.length && a.every((item, i) => isEqual(item, b[i]));
  if (!isTree(a) || !isTree(b)) return false;
  const keys = Object.keys(a);
  return (
    keys.length === Object.keys(b).length && keys.every((k) => Object.hasOwn(b, k) && isEqual(a[k], b[k]))
  );
}
