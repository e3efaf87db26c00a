/** What was worked out under a name, or works it out; of several the oldest goes when there are too many. */
export function keptIn<T>(kept: Map<string, T>, key: string, most: number, make: () => T): T {
  const found = kept.get(key);
  if (found !== undefined) return found;
  const made = make();
  if (kept.size >= most) kept.delete(kept.keys().next().value!);
  kept.set(key, made);
  return made;
}
