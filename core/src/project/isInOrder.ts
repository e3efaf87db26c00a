import type { Project } from './types.js';

/** Whether pairs of limits that can be changed one by one still belong together: what is from lies below what is to. */
export function isInOrder({ variants, libraryViews, readings }: Project): boolean {
  const rises = (pair: { from: number; to: number } | null) => pair === null || pair.from < pair.to;
  return (
    variants.every(
      ({ correction: { spans, filter } }) =>
        Object.values(spans).every(rises) && filter.leastQ <= filter.mostQ,
    ) &&
    libraryViews.every(({ look }) => look.fromHz < look.toHz && rises(look.marked)) &&
    readings.every(rises)
  );
}
