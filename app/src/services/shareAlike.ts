const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && Object.getPrototypeOf(value) === Object.prototype;

const isNumbers = (value: unknown): value is Float64Array | Float32Array =>
  value instanceof Float64Array || value instanceof Float32Array;

/**
 * A value in which all that has not changed since is the very object that it was, down to single curves: what a worker answers is
 * made anew from end to end, and what is drawn of it need not be.
 * @param before not changed
 * @param now not changed; what is returned has the same contents
 */
export function shareAlike<T>(before: unknown, now: T): T {
  if (Object.is(before, now)) return now;
  if (isNumbers(now)) return isNumbers(before) && haveSameNumbers(before, now) ? (before as T) : now;
  if (Array.isArray(now)) {
    if (!Array.isArray(before)) return now;
    const shared = now.map((item: unknown, i) => shareAlike(before[i], item));
    return (
      before.length === now.length && shared.every((item, i) => Object.is(item, before[i])) ? before : shared
    ) as T;
  }
  if (now instanceof Map) {
    if (!(before instanceof Map)) return now;
    const shared = new Map([...now].map(([key, item]) => [key, shareAlike(before.get(key), item)]));
    const isSame =
      before.size === now.size &&
      [...shared].every(([key, item]) => before.has(key) && Object.is(before.get(key), item));
    return (isSame ? before : shared) as T;
  }
  if (isRecord(now)) {
    if (!isRecord(before)) return now;
    const keys = Object.keys(now);
    const shared = Object.fromEntries(keys.map((key) => [key, shareAlike(before[key], now[key])]));
    const isSame =
      Object.keys(before).length === keys.length &&
      keys.every((key) => key in before && Object.is(before[key], shared[key]));
    return (isSame ? before : shared) as T;
  }
  return now;
}

function haveSameNumbers(a: Float64Array | Float32Array, b: Float64Array | Float32Array): boolean {
  if (a.constructor !== b.constructor || a.length !== b.length) return false;
  for (let i = 0; i < a.length; i++) if (!Object.is(a[i], b[i])) return false;
  return true;
}
