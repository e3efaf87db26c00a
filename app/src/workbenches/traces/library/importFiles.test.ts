import { expect, it } from 'vitest';
import { unpackCurve } from '../../../services/keepTrace';
import { candidateOf, importedTrace, withMeanings } from './importFiles';

const file = (name: string, text: string) => ({ name, size: text.length, text: async () => text });
const rows = [100, 200, 400, 800].map((f) => `${f}\t-3\t10`).join('\n');

it('a text file becomes a trace with its name, its columns and what it said of itself', async () => {
  const candidate = await candidateOf(file('hall, row 4.txt', `# measured on Tuesday\n${rows}`));
  expect(candidate).toMatchObject({ name: 'hall, row 4', problem: null });
  const { trace, array } = importedTrace(candidate, ['hall, row 4'])!;
  expect(trace.name).not.toBe('hall, row 4');
  expect(trace.origin).toMatchObject({ by: 'file', hasPhase: true, notes: ['measured on Tuesday'] });
  const { re, im } = unpackCurve(array);
  expect(20 * Math.log10(Math.hypot(re[5]!, im[5]!))).toBeCloseTo(-3, 3);
});

it('what is misunderstood is mapped by hand, what cannot be is told', async () => {
  const candidate = await candidateOf(file('a.csv', '1,100,5\n2,200,5\n4,400,5\n5,800,5'));
  const mapped = withMeanings(candidate, ['nothing', 'frequency in Hz', 'level in dB']);
  expect(mapped.problem).toBeNull();
  const { array } = importedTrace(mapped, [])!;
  expect(unpackCurve(array).frequency[0]).toBeGreaterThan(99);
  expect(withMeanings(candidate, ['nothing', 'nothing', 'level in dB']).problem).toMatch(/frequency/);
  const broken = await candidateOf(file('b.txt', 'no numbers here'));
  expect(broken.problem).toMatch(/No rows/);
  expect(importedTrace(broken, [])).toBeNull();
  expect((await candidateOf({ ...file('c.txt', ''), size: 40e6 })).problem).toMatch(/32 MB/);
});
