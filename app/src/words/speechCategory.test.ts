import { expect, it } from 'vitest';
import { speechCategory } from './speechCategory';

it.each([
  [0.8, 'excellent (IEC 60268-16 category A+)'],
  [0.66, 'good (IEC 60268-16 category C)'],
  [0.5, 'fair (IEC 60268-16 category G)'],
  [0.37, 'poor (IEC 60268-16 category J)'],
  [0.2, 'bad (IEC 60268-16 category U)'],
])('an index of %f is %s', (sti, words) => expect(speechCategory(sti)).toBe(words));
