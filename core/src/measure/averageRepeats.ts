import type { AnalysedSweep } from './analyseSweep.js';

const RANK = { good: 0, doubtful: 1, failed: 2 } as const;

/**
 * Several takes of one channel at one spot as one: their impulse responses averaged in time, which lowers the noise by
 * 10 log n and leaves the rest. Only takes of the best verdict among them count; one that failed is averaged with
 * nothing, as noise alone would be. Margins stay those of the single take: the silence is not averaged.
 * @param takes at least one, of one rate and length
 * @returns the average, and how many takes are in it
 * @throws RangeError without a take
 */
export function averageRepeats(takes: AnalysedSweep[]): { sweep: AnalysedSweep; repeats: number } {
  if (takes.length === 0) throw new RangeError('averageRepeats: needs at least one take');
  const best = takes.reduce((a, b) => (RANK[b.verdict.state] < RANK[a.verdict.state] ? b : a));
  const alike = takes.filter(
    (t) =>
      t.verdict.state === best.verdict.state &&
      t.impulse.samples.length === best.impulse.samples.length &&
      // heard within half a sample's time of each other: otherwise the microphone was moved, or time was lost
      Math.abs((t.arrival?.peakS ?? 0) - (best.arrival?.peakS ?? 0)) < 1.5 / t.impulse.rate,
  );
  if (best.verdict.state === 'failed' || alike.length < 2) return { sweep: best, repeats: 1 };
  const samples = new Float32Array(best.impulse.samples.length);
  for (const { impulse } of alike)
    for (let i = 0; i < samples.length; i++) samples[i] = samples[i]! + impulse.samples[i]! / alike.length;
  return { sweep: { ...best, impulse: { ...best.impulse, samples } }, repeats: alike.length };
}
