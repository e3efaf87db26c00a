import type { SourceSetting } from '../alignment/index.js';
import { isPlain, settingOf, stepsBelow, type AlignStep } from './align.js';

/** How the sources of a step were set, by source id. */
export type Settings = Record<string, SourceSetting>;

const settingsOf = (step: AlignStep): Settings =>
  Object.fromEntries(step.sources.map((s) => [s.id, settingOf(s)]));

const isSame = (a: Settings, b: Settings): boolean => {
  const ids = new Set([...Object.keys(a), ...Object.keys(b)]);
  return [...ids].every((id) => JSON.stringify(a[id]) === JSON.stringify(b[id]));
};

/** A step that takes note how those below it are set now: it was set, or looked at, with them as they are. */
export function seenAsItIs(steps: readonly AlignStep[], step: AlignStep): AlignStep {
  const below = stepsBelow(steps, step.id);
  const seen = steps.filter((s) => below.has(s.id)).map((s) => [s.id, settingsOf(s)] as const);
  return { ...step, restedOn: Object.fromEntries(seen) };
}

/** Steps below a step that were set otherwise since it was set. */
export function changedBelow(steps: readonly AlignStep[], step: AlignStep): AlignStep[] {
  // what was never set rests on nothing
  if (!step.isDone && step.sources.every((s) => isPlain(s))) return [];
  const below = stepsBelow(steps, step.id);
  return steps.filter((s) => {
    const seen = below.has(s.id) ? step.restedOn[s.id] : undefined;
    return seen !== undefined && !isSame(seen, settingsOf(s));
  });
}

/**
 * Steps after a change: one whose sources were set or are others takes note of what it rests on. What it rested on before it was
 * touched stays noted otherwise.
 */
export const noted = (before: readonly AlignStep[], after: AlignStep[]): AlignStep[] =>
  after.map((step) => {
    const was = before.find((s) => s.id === step.id);
    return was && was.sources === step.sources ? step : seenAsItIs(after, step);
  });
