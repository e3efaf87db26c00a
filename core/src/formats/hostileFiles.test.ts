import fc from 'fast-check';
import { describe, expect, it, vi } from 'vitest';
import {
  bytesOfText,
  calibrationReadings,
  flacLength,
  FormatError,
  MOST_TEXT,
  packFiles,
  readCalibrationText,
  readImpulseHead,
  readNpy,
  readNumbers,
  readResponseText,
  readTargetText,
  readWav,
  unpackFiles,
  writeWav,
} from './index.js';

const ROWS = Array.from({ length: 30 }, (_, i) => `${20 * 2 ** (i / 3)}\t${i % 3}`).join('\n');
const READERS: Record<string, (text: string) => unknown> = {
  calibration: (text) => readCalibrationText(text, text.slice(0, 50)),
  'calibration read in every way': (text) => calibrationReadings(text),
  response: readResponseText,
  numbers: readNumbers,
  target: readTargetText,
};

// a test that is not done by then hangs: twenty times what a slow machine takes for the largest of these
vi.setConfig({ testTimeout: 10_000 });

/** Is read, or refused with a reason that can be read. */
function survives(read: () => unknown): void {
  try {
    read();
  } catch (error) {
    expect(error).toBeInstanceOf(FormatError);
    expect((error as Error).message.length).toBeLessThanOrEqual(320);
  }
}

describe.each(Object.entries(READERS))('the %s of a hostile text', (_name, read) => {
  it.each<[string, string]>([
    ['"sens" over and over', `* ${'sens'.repeat(1500)}\n${ROWS}`],
    ['"sens" on many lines', `${'* sens sens sens\n'.repeat(20_000)}${ROWS}`],
    ['a serial of dots', `* serial ${'.'.repeat(200_000)}\n${ROWS}`],
    ['a serial of dots on many lines', `${`* serial ${'.'.repeat(290)}\n`.repeat(5000)}${ROWS}`],
    ['spaces without end', `${' '.repeat(3_000_000)}1\n${ROWS}`],
    ['digits without end', `${'1'.repeat(3_000_000)}\n${ROWS}`],
    ['one line of 7 MB', `1 2 ${'3 '.repeat(3_500_000)}`],
    ['more than is read', '1 2\n'.repeat(MOST_TEXT / 4 + 1)],
    ['lines without anything', '\n'.repeat(5_000_000)],
    ['rates over and over', `${'# sample rate: 1.1.1.1.1.1.1\n'.repeat(30_000)}${ROWS}`],
    ['marks over and over', `${'*'.repeat(19_000)}\n${ROWS}`],
    ['numbers beyond all', '20 1e308\n30 -1e308\n40 1e999\n50 1\n60 2\n2000 3'],
    ['names of every object', `* serial constructor\n* __proto__ toString\n${ROWS}`],
    ['nothing', ''],
    ['zeros', '\u0000'.repeat(1000)],
  ])('%s', (_what, text) => survives(() => read(text)));

  it('whatever it is', () => {
    const piece = fc.constantFrom(
      '20',
      '1e3',
      ',',
      ';',
      '\t',
      ' ',
      '\n',
      '-',
      '.',
      '*',
      'serial',
      'sens',
      'dB',
      'NaN',
      '90°',
      '"',
    );
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 200 }), (pieces) => survives(() => read(pieces.join('')))),
      { numRuns: 300 },
    );
  });
});

it('heads of files that say the rate a thousand times are read once through', () => {
  survives(() => readImpulseHead([`${'sample rate '.repeat(50_000)}48 kHz`]));
});

describe('a file that is no file', () => {
  const wav = writeWav([Float64Array.from({ length: 300 }, (_, i) => Math.sin(i))], 48_000);
  const npyHead = bytesOfText(
    "\u0093NUMPY\u0001\u0000v\u0000{'descr': '<f4', 'fortran_order': False, 'shape': (3,), }",
  );
  it('with bytes changed, cut off or added is read or refused', () => {
    const harm = fc.record({
      at: fc.nat(400),
      byte: fc.nat(255),
      cut: fc.nat(700),
      more: fc.uint8Array({ maxLength: 40 }),
    });
    fc.assert(
      fc.property(fc.array(harm, { minLength: 1, maxLength: 6 }), (harms) => {
        for (const [file, read] of [
          [wav, readWav],
          [npyHead, readNpy],
        ] as const) {
          let bytes = file.slice();
          for (const { at, byte, cut, more } of harms) {
            bytes[at % bytes.length] = byte;
            bytes = Uint8Array.from([...bytes.subarray(0, Math.max(1, cut)), ...more]);
          }
          survives(() => read(bytes));
        }
      }),
      { numRuns: 500 },
    );
  });
});

describe('a zip made to burst', () => {
  it('is not unpacked beyond forty times its size, whatever the limit of its kind', () => {
    const bomb = packFiles({ 'project.json': new Uint8Array(60e6) });
    expect(bomb.length).toBeLessThan(100_000);
    expect(() => unpackFiles(bomb, { files: 10, bytes: 2e9 })).toThrow(/would take more than/);
    const modest = packFiles({ 'project.json': new Uint8Array(3e6) });
    expect(unpackFiles(modest, { files: 10, bytes: 2e9 })['project.json']).toHaveLength(3e6);
  });
});

describe('how long a FLAC file is', () => {
  /** CRC-8 by its polynomial, bit by bit. */
  const crc8 = (bytes: number[]) => {
    let crc = 0;
    for (const byte of bytes)
      for (let bit = 7; bit >= 0; bit--) {
        const out = (crc >> 7) ^ ((byte >> bit) & 1);
        crc = ((crc << 1) & 0xff) ^ (out ? 0x07 : 0);
      }
    return crc;
  };
  const frame = (head: number[]) => [...head, crc8(head), 0, 0, 0, 0, 0, 0];
  it('is told by the heads of its frames, whatever its own head claims', () => {
    const bytes = Uint8Array.from([
      ...[0x66, 0x4c, 0x61, 0x43, 0x80, 0, 0, 34, ...new Array<number>(34).fill(0)],
      // 4096 samples by its code, 65,535 and 200 by numbers of their own, the second with a number of two bytes
      ...frame([0xff, 0xf8, 0xc9, 0x08, 0x00]),
      ...frame([0xff, 0xf8, 0x79, 0x08, 0xc2, 0x80, 0xff, 0xfe]),
      ...frame([0xff, 0xf8, 0x69, 0x08, 0x01, 199]),
      // none: its sum is wrong
      ...[0xff, 0xf8, 0xc9, 0x08, 0x00, 0x00, 0, 0],
    ]);
    expect(flacLength(bytes)).toBe(4096 + 65_535 + 200);
  });
});
