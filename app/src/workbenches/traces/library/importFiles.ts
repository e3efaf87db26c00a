import {
  MOST_TEXT,
  needImpulse,
  readImpulseHead,
  readWav,
  type Numbers,
  type NumberTable,
  type TextImpulse,
} from '@pebble-hall/core/formats';
import { gainOfDb } from '@pebble-hall/core/signal';
import { freeName, type KeptTrace, type Project, type ProjectArray } from '@pebble-hall/core/project';
import {
  curveOfImpulse,
  curveOfTable,
  likelyMeanings,
  type ColumnMeaning,
  timeZeroOf,
  type LibraryCurve,
  type TimeZero,
} from '@pebble-hall/core/traces';
import { decodeFlac } from './decodeFlac';
import { readProblem } from './readProblem';
import { readSet, type ReadsSet, type ResponseSet } from './responseSets';
import { readInWorker, runLong } from '../../../services/jobs';
import { newTrace } from '../../../services/newTrace';
import { packCurve } from '../../../services/keepTrace';

/** An impulse response that a file holds. */
export interface ReadImpulse {
  /** one or more, equally long */
  channels: Float64Array[];
  rate: number;
  /** whether the file says its rate; where it does not, a hand does */
  rateIsKnown: boolean;
  /** sample of time zero as the file says it; null where it does not */
  saidZero: number | null;
  comments: string[];
}

/** A file that may become a trace: a table of a response, or an impulse response. */
export interface Candidate {
  fileName: string;
  name: string;
  /** null where it cannot be read at all */
  table: NumberTable | null;
  meanings: ColumnMeaning[];
  /** null where it holds a table */
  impulse: ReadImpulse | null;
  /** null where it holds one response, not a set of them */
  set: ResponseSet | null;
  zero: TimeZero;
  problem: string | null;
}

const MOST_SOUND_BYTES = 256e6;
const SOUND = /\.(wav|flac)$/i;
const SET = /\.(sofa|h5|nc)$/i;
/** Of a text that does not say it. */
const USUAL_RATE = 48_000;

/** What reads the inside of a file. */
export interface FileReaders {
  numbers: (text: string) => Numbers | Promise<Numbers>;
  set: ReadsSet;
}

/** What files seem to hold, one after the other and apart from the page. @throws AbortError when it is cancelled in the header */
export const readCandidates = (files: readonly File[]): Promise<Candidate[]> =>
  runLong(
    files.length === 1 ? `Reading ${files[0]!.name}` : 'Reading files',
    async ({ signal, onProgress }) => {
      const readers: FileReaders = {
        numbers: (text) => readInWorker('files.numbers', text, signal),
        set: (bytes) => readInWorker('files.set', bytes, signal),
      };
      const candidates: Candidate[] = [];
      for (const file of files) {
        candidates.push(await candidateOf(file, readers));
        signal.throwIfAborted();
        onProgress(candidates.length / files.length);
      }
      return candidates;
    },
  );

/** What a file seems to hold; what is wrong with it, where it holds nothing. */
export async function candidateOf(
  file: Pick<File, 'name' | 'size' | 'text' | 'arrayBuffer'>,
  readers: FileReaders,
): Promise<Candidate> {
  const empty = {
    fileName: file.name,
    name: file.name.replace(/\.[^.]*$/, '').slice(0, 180) || 'Trace',
    table: null,
    meanings: [],
    impulse: null,
    set: null,
    zero: { by: 'onset' } as TimeZero,
  };
  if (SET.test(file.name)) return { ...empty, ...(await readSet(file, readers.set)) };
  if (SOUND.test(file.name)) return soundCandidate(file, empty);
  if (file.size > MOST_TEXT)
    return {
      ...empty,
      problem: `It is larger than ${MOST_TEXT / 1e6} MB, too large for a response as text.`,
    };
  try {
    const text = await file.text();
    const found = await readers.numbers(text);
    if (found.impulse) {
      const impulse = ofText(found.impulse);
      return { ...empty, impulse, zero: zeroFor(impulse), problem: null };
    }
    const { table } = found;
    return withMeanings({ ...empty, table, problem: null }, likelyMeanings(table));
  } catch (error) {
    return { ...empty, problem: sentence(error) };
  }
}

type Empty = Omit<Candidate, 'problem'>;

async function soundCandidate(
  file: Pick<File, 'name' | 'size' | 'arrayBuffer'>,
  empty: Empty,
): Promise<Candidate> {
  if (file.size > MOST_SOUND_BYTES)
    return { ...empty, problem: 'It is larger than 256 MB, too large for an impulse response.' };
  try {
    const bytes = new Uint8Array(await file.arrayBuffer());
    const { channels, rate, comment } = /\.flac$/i.test(file.name) ? await decodeFlac(bytes) : readWav(bytes);
    for (const channel of channels) needImpulse(channel);
    const comments = comment.split('\n').filter(Boolean);
    const { zero, gainDb } = readImpulseHead(comments);
    const impulse: ReadImpulse = {
      channels: gainDb === 0 ? channels : channels.map((c) => c.map((v) => v * gainOfDb(-gainDb))),
      rate,
      rateIsKnown: true,
      saidZero: zero,
      comments,
    };
    return { ...empty, impulse, zero: zeroFor(impulse), problem: null };
  } catch (error) {
    return { ...empty, problem: sentence(error) };
  }
}

const ofText = ({ samples, rate, zero, comments }: TextImpulse): ReadImpulse => ({
  channels: [samples],
  rate: rate ?? USUAL_RATE,
  rateIsKnown: rate !== null,
  saidZero: zero,
  comments,
});

/** As the file says it, or else where the sound sets in. */
const zeroFor = ({ saidZero, rate }: ReadImpulse): TimeZero =>
  saidZero === null ? { by: 'onset' } : { by: 'hand', seconds: saidZero / rate };

/** The same with its columns read in another way. */
export function withMeanings(candidate: Candidate, meanings: ColumnMeaning[]): Candidate {
  const curve = tried({ ...candidate, meanings });
  return { ...candidate, meanings, problem: typeof curve === 'string' ? curve : null };
}

function tried({ table, meanings }: Pick<Candidate, 'table' | 'meanings'>): LibraryCurve | string {
  if (!table) return 'It holds no table.';
  try {
    return curveOfTable(table, meanings);
  } catch (error) {
    return sentence(error);
  }
}

const sentence = (error: unknown): string => readProblem(error, 'It cannot be read.');

/** Library points are 48 to an octave: what a file holds between them is lost, and told. */
const DENSE = 1.5;

/** How time zero was put, for the notes of a trace. */
const zeroNote = ({ by }: TimeZero, saidZero: number | null): string =>
  by === 'hand'
    ? saidZero === null
      ? 'Time zero was put by hand.'
      : 'Time zero is where the file says.'
    : `Time zero is its ${by}: absolute time is not known.`;

/** Channels by letters, as numbers at the end of a name tell traces of one name apart. */
const letter = (channel: number): string =>
  channel < 26
    ? String.fromCharCode(65 + channel)
    : `${letter(Math.floor(channel / 26) - 1)}${letter(channel % 26)}`;

/** What becomes of an impulse response: a trace of each channel, with its samples. */
export function importedImpulses(
  { impulse, zero, fileName, name }: Candidate,
  taken: readonly string[],
): { trace: KeptTrace; array: ProjectArray }[] {
  if (!impulse) return [];
  const { channels, rate, saidZero, comments } = impulse;
  const names = [...taken];
  return channels.map((samples, c) => {
    const curve = curveOfImpulse({ samples, rate, zero: timeZeroOf(samples, rate, zero) });
    const array = packCurve(crypto.randomUUID(), curve, rate);
    const free = freeName(channels.length === 1 ? name : `${name}, channel ${letter(c)}`, names);
    names.push(free);
    const trace = newTrace({
      kind: 'transfer function',
      name: free,
      folder: 'Imported',
      arrayId: array.id,
      origin: {
        by: 'file',
        fileName: fileName.slice(0, 200),
        columns: [],
        hasPhase: true,
        notes: [
          `An impulse response of ${samples.length} samples at ${rate / 1000} kHz.`,
          zeroNote(zero, saidZero),
          'Its level is that of the file: what full scale stood for is not known.',
          ...comments.slice(0, 20).map((line) => line.slice(0, 500)),
        ],
      },
    });
    return { trace, array };
  });
}

/** What becomes of a candidate: a trace and its samples; null where it cannot be one. */
export function importedTrace(
  candidate: Candidate,
  taken: string[],
): { trace: KeptTrace; array: ProjectArray } | null {
  const curve = tried(candidate);
  if (typeof curve === 'string') return null;
  const array = packCurve(crypto.randomUUID(), curve, 48_000);
  const { table, meanings, fileName, name } = candidate;
  const isDense = table!.columns[0]!.length > DENSE * curve.frequency.length;
  const trace = newTrace({
    kind: 'transfer function',
    name: freeName(name, taken),
    folder: 'Imported',
    arrayId: array.id,
    origin: {
      by: 'file',
      fileName: fileName.slice(0, 200),
      columns: meanings,
      hasPhase: curve.hasPhase,
      notes: [
        ...(isDense ? ['Its points between those of the library, 48 to an octave, were left out.'] : []),
        ...table!.comments.slice(0, 40).map((c) => c.slice(0, 500)),
      ],
    },
  });
  return { trace, array };
}

/** The project with some more traces. */
export const withTraces = (project: Project, traces: readonly KeptTrace[]): Project => ({
  ...project,
  kept: [...project.kept, ...traces],
});
