import { describe, expect, it } from 'vitest';
import { loudnessWords, whereWords, type HeardWhere } from './heardWords';

const base: HeardWhere = {
  piece: 'Pink noise',
  through: 'room',
  left: 'Left',
  right: 'Right',
  also: [],
  spot: 'Home spot',
  headphones: null,
  distance: null,
};

describe('where it is heard', () => {
  it('in the measured room: through whom, at which spot, and that it is one microphone', () => {
    expect(whereWords(base)).toMatch(
      /^Pink noise through Left and Right, as one microphone at Home spot hears it/,
    );
    expect(whereWords({ ...base, piece: null, right: 'Left' })).toMatch(/^The piece through Left, as/);
    expect(whereWords({ ...base, right: 'Sub 1', also: ['Sub 2'] })).toContain(
      'through Left, Sub 1 and Sub 2, as',
    );
  });

  it('at the output, and on headphones with what the correction is worth', () => {
    expect(whereWords({ ...base, through: 'output' })).toContain('through the filters alone');
    const on: HeardWhere = { ...base, through: 'headphones' };
    expect(whereWords(on)).toMatch(/^Choose headphones/);
    const headphones = { name: 'Knot 40', targetName: 'Level' };
    expect(whereWords({ ...on, headphones })).toContain('towards Level: being worked out.');
    expect(whereWords({ ...on, headphones, distance: { before: 3.14, after: 0.96 } })).toContain(
      '3.1 dB from the target as they are, 1.0 dB corrected.',
    );
  });
});

describe('how loud it is', () => {
  const rendered = { trimDb: [-9.14, 0], loudness: [-14, -23.1] };

  it('is told as the trim of each while they are matched', () => {
    expect(loudnessWords(['as found', 'Warm'], rendered, true)).toBe(
      'Matched in loudness: as found −9.1 dB, Warm 0.0 dB.',
    );
  });

  it('is told as who is louder where they are not; silence does not count', () => {
    expect(loudnessWords(['as found', 'Warm'], rendered, false)).toBe(
      'Not matched: as found is louder by 9.1 dB than the quietest, and louder sounds better.',
    );
    expect(loudnessWords(['a', 'b'], { trimDb: [], loudness: [-20, -20.1] }, false)).toBe(
      'Not matched: all are about as loud.',
    );
    expect(loudnessWords(['a', 'b'], { trimDb: [], loudness: [-Infinity, -20] }, false)).toContain(
      'about as loud',
    );
    expect(loudnessWords(['a'], { trimDb: [], loudness: [-Infinity] }, false)).toContain('about as loud');
  });
});
