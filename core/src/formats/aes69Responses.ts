import { lengthOf, type Point } from '../geometry/index.js';
import { FormatError } from './formatError.js';
import { openAes69, type Aes69 } from './openAes69.js';

/** A response of a set: an impulse response, or pressures over frequency. */
export interface Aes69Response {
  /** what tells it from the others: numbers of measurement, receiver and emitter, and where they were */
  name: string;
  source: Point | null;
  /** where the receiver was */
  listener: Point | null;
  response:
    | {
        kind: 'impulse';
        samples: Float64Array;
        rate: number;
        /** index of time zero, which may lie ahead */ zero: number;
      }
    | { kind: 'spectrum'; frequency: Float64Array; re: Float64Array; im: Float64Array };
}

/** More responses than that are a set for other purposes than looking at them. */
const MOST_RESPONSES = 4096;

/**
 * Reads sets of responses from AES69 files, whatever convention they follow: impulse responses (FIR, FIR-E) or pressures over
 * frequency (TF, TF-E), each with where source and receiver were.
 * @returns the title of the file, its responses, and what was assumed
 * @throws FormatError with what is wrong, and what would be right
 */
export async function readAes69Responses(
  bytes: Uint8Array,
): Promise<{ title: string; notes: string[]; responses: Aes69Response[] }> {
  const { file, close } = await openAes69(bytes);
  try {
    return responsesOf(file);
  } finally {
    close();
  }
}

function responsesOf(file: Aes69): { title: string; notes: string[]; responses: Aes69Response[] } {
  if (file.text('Conventions') !== 'SOFA')
    throw new FormatError(
      'This is an HDF5 file, but none of AES69: it does not say that it follows its conventions.',
    );
  const notes = [`Convention ${file.text('SOFAConventions') || 'not named'}.`];
  const responses = file.numbers('Data.IR') ? impulsesOf(file, notes) : spectraOf(file);
  const places = placesOf(file);
  return {
    title: file.text('Title') || file.text('SourceName'),
    notes,
    responses: responses.map(({ m, r, e, response }) => {
      const { source, listener } = places(m, r);
      const counted = [
        ...(responses.some((o) => o.m !== m) ? [`measurement ${m + 1}`] : []),
        ...(responses.some((o) => o.r !== r) ? [`receiver ${r + 1}`] : []),
        ...(responses.some((o) => o.e !== e) ? [`emitter ${e + 1}`] : []),
      ];
      return { name: counted.join(', '), source, listener, response };
    }),
  };
}

interface Numbered {
  m: number;
  r: number;
  e: number;
  response: Aes69Response['response'];
}

/** Sizes of measurements, receivers, emitters and samples. @throws FormatError for what is none */
function sizesOf(
  name: string,
  { values, shape }: { values: Float64Array; shape: number[] },
  most = MOST_RESPONSES,
) {
  const [m = 0, r = 0, n = 0, e = 1] = shape;
  if ((shape.length !== 3 && shape.length !== 4) || m * r * n * e !== values.length || values.length === 0)
    throw new FormatError(
      `${name} has the form ${shape.join(' x ')}; measurements x receivers x samples were expected.`,
    );
  if (m * r * e > most)
    throw new FormatError(
      `The file holds ${m * r * e} responses; up to ${most} are taken. Export fewer of them.`,
    );
  if (values.some((v) => !Number.isFinite(v)))
    throw new FormatError(`${name} holds values that are no numbers. Export the file again, without gaps.`);
  return { m, r, n, e };
}

const impulsesOf = (file: Aes69, notes: string[]): Numbered[] =>
  aes69Impulses(file, notes, MOST_RESPONSES).map(({ m, r, e, ...impulse }) => ({
    m,
    r,
    e,
    response: { kind: 'impulse', ...impulse },
  }));

/** An impulse response of a file, with the numbers of its measurement, receiver and emitter. */
export interface NumberedImpulse {
  m: number;
  r: number;
  e: number;
  samples: Float64Array;
  rate: number;
  zero: number;
}

/** All impulse responses of a file, which has some. @param most of them that are taken @throws FormatError */
export function aes69Impulses(file: Aes69, notes: string[], most: number): NumberedImpulse[] {
  const data = file.numbers('Data.IR')!;
  const size = sizesOf('Data.IR', data, most);
  const rates = file.numbers('Data.SamplingRate')?.values;
  if (!rates || rates.length === 0 || !rates.every((v) => v >= 1000 && v <= 1e6))
    throw new FormatError('The file does not tell its sampling rate, so its times are not known.');
  const delays = file.numbers('Data.Delay');
  if (!delays) notes.push('The file tells no delay: time zero is the first sample of each response.');
  // one for all, one for each receiver, or one for each response
  const delayOf = (m: number, r: number) => {
    const { values, shape } = delays ?? { values: Float64Array.of(0), shape: [1, 1] };
    const [many = 1, receivers = 1] = shape;
    return values[(many > 1 ? m : 0) * receivers + (receivers > 1 ? r : 0)] ?? 0;
  };
  return numbered(size, (m, r, e) => {
    const at = (i: number) => data.values[((m * size.r + r) * size.n + i) * size.e + e]!;
    const samples = Float64Array.from({ length: size.n }, (_, i) => at(i));
    const rate = rates.length > 1 ? (rates[m] ?? rates[0]!) : rates[0]!;
    return { m, r, e, samples, rate, zero: -delayOf(m, r) };
  });
}

function spectraOf(file: Aes69): Numbered[] {
  const [real, imaginary, n] = [file.numbers('Data.Real'), file.numbers('Data.Imag'), file.numbers('N')];
  if (!real || !imaginary || !n)
    throw new FormatError('The file holds neither impulse responses (Data.IR) nor pressures (Data.Real, N).');
  const size = sizesOf('Data.Real', real);
  if (imaginary.values.length !== real.values.length || n.values.length !== size.n)
    throw new FormatError(
      `The file contradicts itself: pressures of ${real.shape.join(' x ')} for ${n.values.length} frequencies.`,
    );
  const order = [...n.values.keys()].filter((k) => n.values[k]! > 0);
  if (order.some((k, i) => i > 0 && !(n.values[k]! > n.values[order[i - 1]!]!)))
    throw new FormatError('The frequencies of the file do not ascend.');
  return numbered(size, (m, r, e): Numbered => {
    const at = (of: Float64Array) =>
      Float64Array.from(order, (k) => of[((m * size.r + r) * size.n + k) * size.e + e]!);
    const frequency = Float64Array.from(order, (k) => n.values[k]!);
    const response = { kind: 'spectrum', frequency, re: at(real.values), im: at(imaginary.values) } as const;
    return { m, r, e, response };
  });
}

function numbered<T>(
  size: { m: number; r: number; e: number },
  made: (m: number, r: number, e: number) => T,
): T[] {
  const out: T[] = [];
  for (let m = 0; m < size.m; m++)
    for (let r = 0; r < size.r; r++) for (let e = 0; e < size.e; e++) out.push(made(m, r, e));
  return out;
}

/** Where source and receiver of a response were, as far as the file tells it: receivers stand relative to the listener. */
function placesOf(file: Aes69) {
  const points = (name: string) => {
    try {
      return file.points(name);
    } catch {
      return null;
    }
  };
  const [sources, listeners, receivers] = [
    points('SourcePosition'),
    points('ListenerPosition'),
    points('ReceiverPosition'),
  ];
  const of = (list: Point[] | null, i: number) => (list ? (list[list.length > 1 ? i : 0] ?? null) : null);
  return (m: number, r: number): { source: Point | null; listener: Point | null } => {
    const listener = of(listeners, m);
    const receiver = of(receivers, r);
    return {
      source: of(sources, m),
      listener:
        listener && receiver && lengthOf(receiver) > 0
          ? { x: listener.x + receiver.x, y: listener.y + receiver.y, z: listener.z + receiver.z }
          : listener,
    };
  };
}
