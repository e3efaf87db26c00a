import type { ImpulseResponse, RealArray } from '../signal/index.js';
import { FormatError } from './formatError.js';
import { textLines } from './textLines.js';

/** An impulse response as a text file holds it. */
export interface TextImpulse {
  samples: Float64Array;
  /** Hz; null where the file does not say */
  rate: number | null;
  /** index of the sample of time zero; null where the file does not say */
  zero: number | null;
  comments: string[];
}

/** What stands in the head of a file for those that read it again, wherever it stands in a line. */
const RATE = /sample rate[^\d]{0,12}([\d.]{1,16})\s{0,4}(k?)Hz/gi;
const ZERO = /time zero at sample\s{1,4}(\d{1,12})/gi;
const GAIN = /gain in the file:\s{0,4}([+-]?[\d.]{1,12})\s{0,4}dB/gi;
/** So much of what stands there is looked through. */
const MOST_HEAD = 100_000;
const LEAST = 16;
const MOST = 1 << 22;
const LEAST_RATE = 8000;

/** Lines that tell rate and time zero: of a text file, or of the comment in a sound file. @param gainDb by which its samples are raised */
export const impulseHead = ({ rate, zero }: Pick<ImpulseResponse, 'rate' | 'zero'>, gainDb = 0): string[] => [
  `sample rate: ${rate} Hz`,
  `time zero at sample ${zero}, counted from 0`,
  ...(gainDb === 0 ? [] : [`gain in the file: ${gainDb.toFixed(4)} dB`]),
];

/** What lines say of rate and time zero, null for what they do not; and by how much the samples were raised to fit into the file. */
export function readImpulseHead(lines: readonly string[]): {
  rate: number | null;
  zero: number | null;
  gainDb: number;
} {
  const text = lines.join('\n').slice(0, MOST_HEAD);
  // what a trace was made from may have said it of itself, further up
  const last = (mark: RegExp) => [...text.matchAll(mark)].at(-1);
  const [rate, zero, gain] = [last(RATE), last(ZERO), last(GAIN)];
  return {
    rate: rate ? Number(rate[1]) * (rate[2] ? 1000 : 1) : null,
    zero: zero ? Number(zero[1]) : null,
    gainDb: gain ? Number(gain[1]) : 0,
  };
}

/** Writes an impulse response as text: comment lines, then a sample on each line. */
export const writeImpulseText = (impulse: ImpulseResponse, about: readonly string[]): string =>
  [
    ...[...about, ...impulseHead(impulse)].map((l) => `# ${l.replace(/[\r\n]+/g, ' ')}`),
    ...Array.from(impulse.samples as ArrayLike<number>, (v) => v.toExponential(9)),
    '',
  ].join('\n');

const NUMBER = /^[+-]?(\d+[.,]?\d*|[.,]\d+)([eE][+-]?\d+)?$/;

/**
 * Reads an impulse response from text: one number on a line, or time and sample. Whatever else stands there is a comment.
 * @throws FormatError where there are fewer than 16 samples, or more than two numbers on a line
 */
export function readImpulseText(text: string): TextImpulse {
  const comments: string[] = [];
  const rows: number[][] = [];
  for (const line of textLines(text, 'an impulse response')) {
    const cells = line
      .trim()
      .split(/[\s;]+|,\s+/)
      .filter(Boolean);
    if (cells.length === 0) continue;
    if (cells.length > 2 || !cells.every((c) => NUMBER.test(c))) {
      comments.push(line.trim().replace(/^[#*;"'!]+\s*/, ''));
      continue;
    }
    rows.push(cells.map((c) => Number(c.replace(',', '.'))));
  }
  const width = rows[0]?.length ?? 0;
  if (rows.length < LEAST || rows.some((r) => r.length !== width))
    throw new FormatError(
      'No impulse response was found in the text: at least 16 lines of one sample, or of time and sample.',
    );
  if (rows.length > MOST) throw new FormatError(`The text holds more than ${MOST} samples.`);
  const head = readImpulseHead(comments);
  if (width === 1) return { samples: Float64Array.from(rows, (r) => r[0]!), ...head, comments };
  return { ...timed(rows), zero: head.zero, comments };
}

/** Time and sample: the rate is that of the times, in seconds or, where that gives none, in milliseconds. */
function timed(rows: number[][]): { samples: Float64Array; rate: number } {
  const step = (rows.at(-1)![0]! - rows[0]![0]!) / (rows.length - 1);
  const even = rows.every((r, i) => Math.abs(r[0]! - rows[0]![0]! - i * step) < 0.1 * Math.abs(step));
  if (!(step > 0) || !even) throw new FormatError('The times in the text do not go on in equal steps.');
  const inSeconds = 1 / step;
  const rate = inSeconds >= 1000 ? inSeconds : 1000 * inSeconds;
  // frequencies go on in equal steps, too, but not in such small ones
  if (rate < LEAST_RATE) throw new FormatError(`Steps of ${step} are too long for an impulse response.`);
  return { samples: Float64Array.from(rows, (r) => r[1]!), rate: Math.round(rate) };
}

/** Whether an array of samples could be an impulse response at all. @throws FormatError with the reason */
export function needImpulse(samples: RealArray): void {
  if (samples.length < LEAST)
    throw new FormatError(`It holds ${samples.length} samples, too few for a response.`);
  if (samples.length > MOST)
    throw new FormatError(
      `It holds ${samples.length} samples, more than ${MOST}: this is a recording, not a response.`,
    );
  if (!samples.some((v) => v !== 0)) throw new FormatError('It is silent.');
}
