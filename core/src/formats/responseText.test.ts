import { describe, expect, it } from 'vitest';
import {
  calibrationReadings,
  FormatError,
  readCalibrationText,
  readResponseText,
  responseReadings,
  writeResponseText,
} from './index.js';

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

describe('commas that separate columns or stand within numbers', () => {
  const spaced = '31,5, 3,1\n1000,0, 0,0\n10000,0, -2,5';
  it.each([
    ['with spaces', spaced, [31.5, 1000, 10000], [3.1, 0, -2.5]],
    ['without', '31,5,3,1\n1000,0,0,0\n10000,0,-2,5', [31.5, 1000, 10000], [3.1, 0, -2.5]],
  ])('gives both readings, %s, and refuses to choose', (_, text, frequency, levelDb) => {
    const [plain, decimal] = responseReadings(text);
    expect(plain).toMatchObject({ reading: 'commas separate' });
    expect([...plain!.table.levelDb].slice(0, 2)).toEqual([5, 0]);
    expect(decimal).toMatchObject({ reading: 'decimal commas' });
    expect([...decimal!.table.frequency]).toEqual(frequency);
    expect([...decimal!.table.levelDb]).toEqual(levelDb);
    expect(() => readResponseText(text)).toThrow(/two ways/);
  });

  it('finds the only reading that makes sense by itself', () => {
    // as columns of their own the frequencies would not ascend
    const [only, ...more] = responseReadings('31,2, 1,5\n31,9, 2,0\n40,0, 2,5');
    expect(more).toEqual([]);
    expect([...only.table.frequency]).toEqual([31.2, 31.9, 40]);
    expect(responseReadings('20, -1, 30\n40, 0, 20')).toHaveLength(1);
    expect(responseReadings('20;1,5\n40;2,5')).toHaveLength(1);
  });

  it('of a calibration names both, the decimal one first', () => {
    const rows = Array.from({ length: 8 }, (_, i) => `${100 * (i + 5)},5, ${i},2`).join('\n');
    const readings = calibrationReadings(rows);
    expect(readings.map((r) => r.reading)).toEqual(['decimal commas', 'commas separate']);
    expect(readings[0]!.calibration.levelDb[3]).toBe(3.2);
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
    // 12.6 mV/Pa: 20 lg 0.0126 = -37.99 dB re 1 V/Pa
    const volts = readCalibrationText(
      `"Sensitivity 12,6 mV/Pa, SERNO: 4417-B"\n${rows}`,
      'siskin_4417_90deg.txt',
    );
    expect(volts.sensitivityDb).toBeCloseTo(-37.99, 2);
    expect(volts).toMatchObject({ serial: '4417-B', incidenceDeg: 90 });
    // a factor that no microphone has is not its sensitivity; an angle stated inside counts before the name
    const factor = readCalibrationText(
      `* Sens Factor = -1.2dB, incidence 0 degrees\n${rows}`,
      'x 90 deg.txt',
    );
    expect(factor).toMatchObject({ sensitivityDb: null, incidenceDeg: 0 });
  });

  it.each([
    ['too few points', '20 0\n1000 1\n20000 0', /Only 3 rows/],
    ['ten times too large', '20 -1\n100 0\n1000 0\n5000 45\n20000 2', /5000 Hz the file says 45 dB/],
    ['not reaching across 1 kHz', '20 1\n30 1\n40 1\n50 1\n60 1', /across 1 kHz/],
  ])('refuses %s', (_, text, reason) => expect(() => readCalibrationText(text)).toThrow(reason));
});
