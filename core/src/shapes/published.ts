import { octavesOfQ } from './bandwidth.js';
import type { FoundShape } from './reading.js';

/** Figures that are printed beside a knob or in a data sheet; null for what is not. */
export interface PublishedFigures {
  hz: number | null;
  gainDb: number | null;
  q: number | null;
  order: number | null;
}

/** How far a figure may be from what is published. */
export interface FigureTolerance {
  hzPercent: number;
  gainDb: number;
  qPercent: number;
}

/** `not sure`: the standard errors reach over the edge of the tolerance, or are not known. */
export type FigureVerdict = 'inside' | 'outside' | 'not sure';

export interface FigureRow {
  figure: 'frequency' | 'gain' | 'q' | 'bandwidth' | 'order';
  published: number | null;
  found: number;
  /** twice the standard error, in the unit of the figure; null where it is not known */
  within: number | null;
  /** found less published: of a frequency, a q and a bandwidth in percent; null where nothing is published */
  difference: number | null;
  /** null where nothing is published */
  verdict: FigureVerdict | null;
}

/** What was found beside what is published: a row for each figure that a shape has. A bandwidth is another look at the q, octaves. */
export function comparePublished(
  { shape, errors }: FoundShape,
  published: PublishedFigures,
  tolerance: FigureTolerance,
): FigureRow[] {
  const twice = (error: number | null) => (error === null ? null : 2 * error);
  const share = (
    figure: 'frequency' | 'q' | 'bandwidth',
    found: number,
    known: number | null,
    error: number | null,
    mostPercent: number,
  ): FigureRow => {
    const difference = known === null ? null : 100 * (found / known - 1);
    const within = twice(error);
    return {
      figure,
      published: known,
      found,
      within: within === null ? null : within * found,
      difference,
      verdict: verdictOf(difference, within === null ? null : 100 * within, mostPercent),
    };
  };
  const rows = [share('frequency', shape.hz, published.hz, errors.hz, tolerance.hzPercent)];
  if ('gainDb' in shape) {
    const difference = published.gainDb === null ? null : shape.gainDb - published.gainDb;
    const within = twice(errors.gainDb);
    rows.push({
      figure: 'gain',
      published: published.gainDb,
      found: shape.gainDb,
      within,
      difference,
      verdict: verdictOf(difference, within, tolerance.gainDb),
    });
  }
  if ('q' in shape && shape.q !== null) {
    rows.push(share('q', shape.q, published.q, errors.q, tolerance.qPercent));
    if (shape.kind === 'peaking')
      rows.push(
        share(
          'bandwidth',
          octavesOfQ(shape.q),
          published.q === null ? null : octavesOfQ(published.q),
          errors.q,
          tolerance.qPercent,
        ),
      );
  }
  if ('order' in shape)
    rows.push({
      figure: 'order',
      published: published.order,
      found: shape.order,
      within: null,
      difference: published.order === null ? null : shape.order - published.order,
      verdict: published.order === null ? null : shape.order === published.order ? 'inside' : 'outside',
    });
  return rows;
}

function verdictOf(difference: number | null, within: number | null, most: number): FigureVerdict | null {
  if (difference === null) return null;
  if (within === null) return 'not sure';
  const size = Math.abs(difference);
  return size + within <= most ? 'inside' : size - within > most ? 'outside' : 'not sure';
}
