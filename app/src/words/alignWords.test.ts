import { readPair, type PairReading, type Suggestion } from '@pebble-hall/core/alignment';
import { logGrid } from '@pebble-hall/core/signal';
import { expect, it } from 'vitest';
import {
  lateWords,
  meetingSentence,
  pairSentences,
  proofSentence,
  settingWords,
  suggestionWords,
} from './alignWords';

const frequency = logGrid(20, 20_000, 48);
/** As loud everywhere between two frequencies, and so late. */
const source = (lateS: number, from = 50, to = 200, gain = 1) => ({
  frequency,
  re: frequency.map((f) => (f >= from && f <= to ? gain : 1e-9) * Math.cos(2 * Math.PI * f * lateS)),
  im: frequency.map((f) => -(f >= from && f <= to ? gain : 1e-9) * Math.sin(2 * Math.PI * f * lateS)),
});

it('tells who is late, by how much and where', () => {
  // a quarter of a period of 100 Hz
  expect(lateWords(-90, 100)).toBe('late by 2.5 ms');
  expect(lateWords(36, 1000)).toBe('early by 0.10 ms');
  expect(lateWords(1, 100)).toBe('in time');
  const reading = readPair(source(0), source(0.001)) as PairReading;
  const [who, how] = pairSentences('Sub', 'Main', reading);
  // 1 ms is 72 degrees of 200 Hz: 20 log cos 36 of the sum
  expect(who!.text).toMatch(/^Sub is late by 1\.0 ms from [45]\d(\.\d)? Hz to (19|20)\d Hz\./);
  expect(who!.text).toMatch(/Most is lost at (19|20)\d Hz: 1\.[789] dB\.$/);
  expect(who!.attention).toBe(false);
  expect(how!.text).toMatch(/^From [\d.]+ Hz to \d+ Hz both are within 10 dB\. There they add up to 9\d %/);
});

it('where it is late here and early there, each is told', () => {
  // a turn that grows with the octaves from 100 Hz on, to either side
  const turned = {
    ...source(0),
    re: frequency.map((f) => (f >= 50 && f <= 200 ? 1 : 1e-9) * Math.cos(Math.log2(f / 100))),
    im: frequency.map((f) => -(f >= 50 && f <= 200 ? 1 : 1e-9) * Math.sin(Math.log2(f / 100))),
  };
  const [who] = pairSentences('Sub', 'Main', readPair(source(0), turned) as PairReading);
  expect(who!.text).toMatch(/^Sub is early by [\d.]+ ms at [45]\d.*, late by [\d.]+ ms at (19|20)\d Hz/);
});

it('says what cannot be judged, and what to do', () => {
  const far = pairSentences('Sub', 'Main', { reason: 'no overlap', apartDb: 41.6 });
  expect(far).toHaveLength(1);
  expect(far[0]).toMatchObject({ attention: true });
  expect(far[0]!.text).toMatch(/42 dB apart at best.*set their levels first/);
  expect(pairSentences('Sub', 'Main', { reason: 'no coherence' })[0]!.text).toMatch(/Measure it again/);
});

it('calls a gap a gap, and too much overlap that', () => {
  const at = (lowest: number, highest: number) =>
    meetingSentence({ hz: 85, lowest: { db: lowest, hz: 84 }, highest: { db: highest, hz: 100 } });
  expect(at(-8, 0).text).toMatch(/gap.*8\.0 dB below the target at 84 Hz/);
  expect(at(-1, 4.1).text).toMatch(/overlap too far.*4\.1 dB above the target at 100 Hz/);
  expect(at(-1, 0.4)).toEqual({
    attention: false,
    text: 'They cross at 85 Hz; in phase their sum lies within 1.0 dB of the target.',
  });
});

it('writes settings and what they are worth', () => {
  const one = { delayS: -0.0064, inverted: true, allPasses: [{ hz: 71, q: 0.8 }] };
  expect(settingWords(one)).toBe('\u22126.40 ms, inverted, all-pass 71 Hz, Q 0.8');
  expect(settingWords({ delayS: 0, inverted: false, allPasses: [], gainDb: -2.5 })).toBe(
    '0.00 ms, \u22122.5 dB',
  );
  const found: Suggestion = {
    ...one,
    for: 'most even',
    efficiency: 0.9,
    worst: 0.8,
    atPoints: Float64Array.of(0.9, 0.8),
    atEdge: false,
    halfMetreDb: 0.32,
    warmerDb: 0.04,
  };
  // from 0.45 to 0.9
  expect(suggestionWords(found, 0.45, 2)).toBe(
    'the worst spot is best; +6.0 dB (+100 %) over now; worst spot 80 %; half a metre costs 0.3 dB, 5 K 0.0; one all-pass; the others wait for it',
  );
});

it('says whether a prediction came true, and where that cannot be judged', () => {
  const proof = { meanDb: -0.1, rmsDb: 0.3, worst: { db: -0.8, hz: 84 }, judged: 1 };
  expect(proofSentence('Both', proof)).toEqual({
    attention: false,
    text: 'Both is as predicted, within 0.3 dB; furthest off by 0.8 dB at 84 Hz.',
  });
  expect(proofSentence('Both', { ...proof, judged: 0.8 }).text).toMatch(
    /80 % of the shared band could be judged/,
  );
  expect(proofSentence('Both', { ...proof, rmsDb: 2.4, meanDb: -2 })).toMatchObject({ attention: true });
  expect(proofSentence('Both', { ...proof, rmsDb: 2.4, meanDb: -2 }).text).toMatch(
    /not as predicted: 2\.4 dB off.*2\.0 dB too quiet.*at 84 Hz \(\u22120\.8 dB\)/,
  );
  expect(proofSentence('Both', { ...proof, judged: 0.3 }).text).toMatch(
    /cannot be judged.*Measure all of them/,
  );
  expect(proofSentence('Both', null)).toMatchObject({ attention: true });
});
