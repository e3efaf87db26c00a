import { expect, it } from 'vitest';
import { apartSentence, gainSentence, knobsText } from './deviceWords';

it('knobs that shape a curve name it; where a fader stands does not', () => {
  expect(knobsText({ '1.low': 15, '2.mid': -7.5, '2.sweep': 2500, '1.fader': -5, '3.high': 0 })).toBe(
    ': 1 low +15, 2 mid \u22127.5, 2 sweep 2.5 kHz',
  );
  expect(knobsText({})).toBe('');
});

it('what there is to turn is told with its input, and by how much', () => {
  expect(gainSentence({ kind: 'nothing', channel: 1 }, [7, 8])).toMatch(/input 8, which is Channel B/);
  expect(gainSentence({ kind: 'apart', channel: 0, byDb: 1.234 }, [7, 8])).toMatch(
    /Channel A is 1\.23 dB lower/,
  );
});

it('a difference is held against its tolerance, the mean apart', () => {
  const apart = { meanDb: 0.42, mostDb: 0.9, mostDbAt: 9000, mostDeg: 3, mostDegAt: 40 };
  const outside = apartSentence(apart, { toleranceDb: 0.5, toleranceDeg: 5 });
  expect(outside).toMatchObject({ attention: true });
  expect(outside.text).toMatch(/lies 0\.42 dB over.*\+0\.90 dB at 9 kHz, outside/);
  expect(outside.text).not.toMatch(/°/);
  expect(apartSentence(apart, { toleranceDb: 1, toleranceDeg: 5 }).attention).toBe(false);
});
