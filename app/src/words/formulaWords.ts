import type { Formula } from '@pebble-hall/core/traces';
import { formatHz } from '../charts/chartMath';
import { listed } from './listed';
import { shapeSentence } from './shapeWords';

const HOW = {
  power: 'by power',
  complex: 'complex',
  coherence: 'complex, by coherence',
  level: 'of levels in dB',
};

/** A formula as a sentence. @param nameOf null for a trace that is gone */
export function formulaSentence(formula: Formula, nameOf: (id: string) => string | null): string {
  const names = formula.of.map((id) => nameOf(id) ?? 'a trace that is gone');
  const [first, second] = names;
  switch (formula.op) {
    case 'sum':
      return `Sum of ${listed(names)}`;
    case 'product':
      return `${names.join(' times ')}`;
    case 'difference':
      return `${first} less ${second}`;
    case 'ratio':
      return `${first} over ${second}`;
    case 'average':
      return `Average of ${listed(names)}, ${HOW[formula.how]}`;
    case 'largest':
      return `Largest of ${listed(names)}`;
    case 'smallest':
      return `Smallest of ${listed(names)}`;
    case 'splice':
      return `${first} below ${formatHz(formula.atHz)}, ${second} above it`;
    case 'inverse':
      return `One over ${first}`;
    case 'minimum phase':
      return `Minimum-phase part of ${first}`;
    case 'excess phase':
      return `Excess phase of ${first}`;
    case 'delay removed':
      return `${first}, ${Math.abs(1000 * formula.delayS).toFixed(3)} ms ${formula.delayS >= 0 ? 'earlier' : 'later'}`;
    case 'all-pass':
      return `${first} behind an all-pass at ${formatHz(formula.hz)}, Q ${formula.q}`;
    case 'shapes':
      return listed(formula.shapes.map(shapeSentence));
  }
}
