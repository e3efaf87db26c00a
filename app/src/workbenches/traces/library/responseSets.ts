import type { Aes69Response, readAes69Responses } from '@pebble-hall/core/formats';
import type { Point } from '@pebble-hall/core/geometry';
import { freeName, type KeptTrace, type ProjectArray } from '@pebble-hall/core/project';
import { curveOfImpulse, curveOfTable, type LibraryCurve } from '@pebble-hall/core/traces';
import { packCurve } from '../../../services/keepTrace';
import { newTrace } from '../../../services/newTrace';
import { readProblem } from './readProblem';

/** A set of responses that a file holds, and which of them are wanted: numbers from 1. */
export interface ResponseSet {
  responses: Aes69Response[];
  notes: string[];
  from: number;
  to: number;
}

/** At once; of larger sets one chooses. */
export const MOST_FROM_SET = 64;

export type ReadsSet = (bytes: Uint8Array) => ReturnType<typeof readAes69Responses>;

/** The set that a file holds, or what is wrong with the file. */
export async function readSet(
  file: Pick<File, 'arrayBuffer'>,
  read: ReadsSet,
): Promise<{ set: ResponseSet | null; problem: string | null }> {
  try {
    const { responses, notes } = await read(new Uint8Array(await file.arrayBuffer()));
    const to = Math.min(responses.length, MOST_FROM_SET);
    return { set: { responses, notes, from: 1, to }, problem: null };
  } catch (error) {
    return {
      set: null,
      problem: readProblem(error, 'It cannot be read as an AES69 file.'),
    };
  }
}

const curveOf = ({ response }: Aes69Response): LibraryCurve =>
  response.kind === 'impulse'
    ? curveOfImpulse(response)
    : curveOfTable({ columns: [response.frequency, response.re, response.im] }, [
        'frequency in Hz',
        'real part',
        'imaginary part',
      ]);

const placed = (what: string, p: Point | null) =>
  p
    ? [
        `${what} at x ${p.x.toFixed(2)} m, y ${p.y.toFixed(2)} m, z ${p.z.toFixed(2)} m, as the file tells it.`,
      ]
    : [];

/** What becomes of the responses of a set that are wanted: a trace of each, with its samples. */
export function importedSet(
  { set, fileName, name }: { set: ResponseSet; fileName: string; name: string },
  taken: readonly string[],
): { trace: KeptTrace; array: ProjectArray }[] {
  const names = [...taken];
  return set.responses.slice(set.from - 1, set.to).map((one) => {
    const curve = curveOf(one);
    const rate = one.response.kind === 'impulse' ? one.response.rate : 48_000;
    const array = packCurve(crypto.randomUUID(), curve, rate);
    const free = freeName([name, one.name].filter(Boolean).join(', ').slice(0, 180), names);
    names.push(free);
    const trace = newTrace({
      kind: 'transfer function',
      name: free,
      folder: name.slice(0, 180),
      arrayId: array.id,
      origin: {
        by: 'file',
        fileName: fileName.slice(0, 200),
        columns: [],
        hasPhase: curve.hasPhase,
        notes: [
          one.response.kind === 'impulse'
            ? `An impulse response of ${one.response.samples.length} samples at ${rate / 1000} kHz, out of a set of ${set.responses.length}.`
            : `Pressures at ${one.response.frequency.length} frequencies, out of a set of ${set.responses.length}.`,
          ...placed('Source', one.source),
          ...placed('Receiver', one.listener),
          ...set.notes,
          'Its level is that of the file: what full scale stood for is not known.',
        ],
      },
    });
    return { trace, array };
  });
}
