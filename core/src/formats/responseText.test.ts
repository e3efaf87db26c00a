import { describe, expect, it } from 'vitest';
import { FormatError, readCalibrationText, readResponseText, writeResponseText } from './index.js';

const want = { frequency: Float64Array.of(20, 1000.5, 20000), levelDb: Float64Array.of(-1.5, 0, 3.25) };

describe('readResponseText', () => {
  it.each([
    ['tabs', '20\t-1.5\n1000.5\t0\n20000\t3.25'],
    ['commas', '20,-1.5\n1000.5,0\n20000,3.25\n'],
    ['commas and spaces', '20, -1.5\n1000.5, 0\n20000, 3.25'],
    ['semicolons and decimal commas', '20;-1,5\r\n1000,5;0\r\n20000;3,25'],
    ['spaces and decimal commas', '  20   -1,5\n1000,5 0,0\n 20000 3,25'],
    [
      'comments and a heading',
      '* made up\n"Siskin"\nFreq(Hz) SPL(dB)\n20 -1.5\n# half-way\n1000.5 0\n20000 3.25',
    ],
    ['exponents and a mark of byte order', '\uFEFF2e1 -1.5\n1.0005E3 0\n2.0e+4 3.25'],
  ])('reads %s', (_, text) => {
    expect(readResponseText(text)).toMatchObject({ ...want, phaseDeg: null });
  });

  it('reads a third column as phase and keeps comments', () => {
    const got = readResponseText('# one\n20;1;-90\n40;2;45,5');
    expect(got.phaseDeg).toEqual(Float64Array.of(-90, 45.5));
    expect(got.comments).toEqual(['one']);
  });

  it.each([
    ['words in it', '20 1\nforty 2\n', /Line 2 is not a row.*forty/],
    ['a single column', '20\n30\n', /Line 1/],
    ['unsorted frequencies', '20 1\n50 1\n40 1', /Line 3: 40 Hz is lower/],
    ['doubled frequencies', '20 1\n20 2', /Line 2: the frequency 20 Hz stands there twice/],
    ['too few points', '20 1', /Only 1 row/],
    ['nothing', '', /No rows/],
    ['a frequency of 0', '0 1\n20 1', /not above 0/],
    ['columns that come and go', '20 1\n40 1 3', /3 columns, the lines before it 2/],
    ['binary data', '20 1\u0000', /binary/],
    ['NaN', '20 NaN\n30 1', /Line 1/],
  ])('refuses %s', (_, text, reason) => {
    expect(() => readResponseText(text)).toThrow(FormatError);
    expect(() => readResponseText(text)).toThrow(reason);
  });

  it('comes back from what it wrote', () => {
    const phaseDeg = Float64Array.of(1, -2.5, 180);
    const text = writeResponseText({ ...want, phaseDeg }, ['Saltmarsh Boathouse', '1/6 octave']);
    const back = readResponseText(text);
    expect(back).toMatchObject({ ...want, phaseDeg });
    expect(back.comments.slice(0, 2)).toEqual(['Saltmarsh Boathouse', '1/6 octave']);
  });
});

describe('readCalibrationText', () => {
  const rows = '20 -1\n100 0\n1000 0\n5000 0.5\n20000 2';

  it('takes serial and sensitivity from the comments', () => {
    const got = readCalibrationText(`* Siskin M1, serial 4417\n* sensitivity: -38,2 dB re 1 V/Pa\n${rows}`);
    expect(got).toMatchObject({
      serial: '4417',
      sensitivityDb: -38.2,
      frequency: [20, 100, 1000, 5000, 20000],
    });
    expect(readCalibrationText(rows)).toMatchObject({ serial: null, sensitivityDb: null });
  });

  it.each([
    ['too few points', '20 0\n1000 1\n20000 0', /Only 3 rows/],
    ['ten times too large', '20 -1\n100 0\n1000 0\n5000 45\n20000 2', /5000 Hz the file says 45 dB/],
    ['not reaching across 1 kHz', '20 1\n30 1\n40 1\n50 1\n60 1', /across 1 kHz/],
  ])('refuses %s', (_, text, reason) => expect(() => readCalibrationText(text)).toThrow(reason));
});
