import type { Formula } from '@pebble-hall/core/traces';
import { expect, it } from 'vitest';
import { formulaSentence } from './formulaWords';

const names: Record<string, string> = { a: 'Main', b: 'Sub', c: 'Fill' };
const nameOf = (id: string) => names[id] ?? null;

it.each<[Formula, string]>([
  [{ op: 'sum', of: ['a', 'b', 'c'] }, 'Sum of Main, Sub and Fill'],
  [{ op: 'difference', of: ['a', 'b'] }, 'Main less Sub'],
  [{ op: 'ratio', of: ['a', 'b'] }, 'Main over Sub'],
  [{ op: 'average', of: ['a', 'b'], how: 'level' }, 'Average of Main and Sub, of levels in dB'],
  [{ op: 'splice', of: ['b', 'a'], atHz: 90, octaves: 1 }, 'Sub below 90 Hz, Main above it'],
  [{ op: 'delay removed', of: ['a'], delayS: 0.00241 }, 'Main, 2.410 ms earlier'],
  [{ op: 'delay removed', of: ['a'], delayS: -0.001 }, 'Main, 1.000 ms later'],
  [{ op: 'sum', of: ['a', 'gone'] }, 'Sum of Main and a trace that is gone'],
])('%s', (formula, sentence) => expect(formulaSentence(formula, nameOf)).toBe(sentence));
