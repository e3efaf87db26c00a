import type { Figures, LevelModel } from './levelFit.js';

/**
 * The same model with its low shelves below its high ones. A low shelf is a high one of the opposite gain at another level, so that where
 * the level is free nothing tells a low shelf above a high shelf from the two exchanged; the knobs of a device do.
 */
export function lowShelvesBelow(model: LevelModel): LevelModel {
  const figures = [...model.figures];
  const kinds = figures.map(({ candidate }) => candidate.make(1000, 0, 1).kind);
  const isOfSecond = (f: Figures) => f.candidate.q !== null;
  let { levelDb } = model;
  kinds.forEach((low, i) =>
    kinds.forEach((high, j) => {
      if (low !== 'low shelf' || high !== 'high shelf') return;
      const [a, b] = [figures[i]!, figures[j]!];
      if (isOfSecond(a) !== isOfSecond(b) || a.hz <= b.hz) return;
      levelDb += a.gainDb + b.gainDb;
      const exchanged = (of: Figures, by: Figures): Figures => ({
        candidate: of.candidate,
        hz: by.hz,
        gainDb: -by.gainDb,
        q: by.q,
      });
      [figures[i], figures[j]] = [exchanged(a, b), exchanged(b, a)];
    }),
  );
  return { ...model, figures, levelDb };
}
