import type { Candidate } from './wanted.js';

/** What a choice among candidates came to: the model, and the second best of each. */
export interface Chosen<C, Model> {
  model: Model;
  /** of each wish, the best first */
  ranked: C[][];
  nextBest: (Model | null)[];
}

const ROUNDS = 5;
/** A round that gains less than this part of what is left is the last. */
const SETTLED = 0.02;
/** Left at every point, this is as good as nothing, whatever the unit (dB, radians). */
const UNSEEN = 1e-3;
/** A quality has to save this part of what is left. */
const PRICE = 0.02;
/** After the first round only these many of the best are tried again. */
const TRIED_AGAIN = 4;

/**
 * The best of everything that is left open, one wish after the other until nothing gets better; where nothing is left open, each is
 * looked for again with the others in place.
 * @param start with any candidate of each wish
 * @param points how many of them the sum of squares is over
 * @param replaced the model with another candidate in one place
 */
export function choose<C extends Pick<Candidate, 'q'>, Model extends { sum: number }>(
  open: readonly (readonly C[])[],
  start: Model,
  points: number,
  replaced: (model: Model, w: number, candidate: C) => Model,
): Chosen<C, Model> {
  // figures that explain no more than chance, or what nobody could measure, are not needed
  const costOf = (candidate: C, sum: number) => (sum + points * UNSEEN ** 2) * (candidate.q ? 1 + PRICE : 1);
  let model = start;
  const nextBest: (Model | null)[] = open.map(() => null);
  const left = open.map((candidates) => [...candidates]);
  for (let round = 0; round < ROUNDS; round++) {
    const before = model.sum;
    left.forEach((candidates, w) => {
      if (open.length === 1 && candidates.length === 1) return;
      const tried = candidates.map((candidate) => ({ candidate, model: replaced(model, w, candidate) }));
      tried.sort((a, b) => costOf(a.candidate, a.model.sum) - costOf(b.candidate, b.model.sum));
      const best = tried[0]!.model;
      if (best.sum <= model.sum * (1 + PRICE) + points * UNSEEN ** 2) model = best;
      nextBest[w] = tried[1]?.model ?? null;
      left[w] = tried.slice(0, TRIED_AGAIN).map((t) => t.candidate);
    });
    // with one wish alone there is nothing that another round could change
    if (open.length === 1 || !(model.sum < before * (1 - SETTLED))) break;
  }
  return { model, ranked: left, nextBest };
}
