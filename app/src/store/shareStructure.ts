/**
 * `next`, with every part of it that is alike in `before` replaced by that of `before`: what did not change keeps its
 * identity. Plain data only: objects and arrays of values that JSON knows.
 */
export function shareStructure<T>(before: unknown, next: T): T {
  if (Object.is(before, next)) return next;
  if (Array.isArray(next)) {
    if (!Array.isArray(before)) return next;
    const shared = next.map((value, i) => shareStructure(before[i], value));
    const isSame = before.length === next.length && shared.every((value, i) => Object.is(value, before[i]));
    return (isSame ? before : shared) as T;
  }
  if (!isPlain(next) || !isPlain(before)) return next;
  const keys = Object.keys(next);
  const shared = Object.fromEntries(keys.map((key) => [key, shareStructure(before[key], next[key])]));
  const isSame =
    keys.length === Object.keys(before).length && keys.every((key) => Object.is(shared[key], before[key]));
  return (isSame ? before : shared) as T;
}

const isPlain = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && Object.getPrototypeOf(value) === Object.prototype;
