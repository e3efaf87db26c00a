import { FormatError, readNumberTable, type NumberTable } from '@pebble-hall/core/formats';
import { freeName, type KeptTrace, type Project, type ProjectArray } from '@pebble-hall/core/project';
import {
  curveOfTable,
  likelyMeanings,
  type ColumnMeaning,
  type LibraryCurve,
} from '@pebble-hall/core/traces';
import { newTrace } from '../../../services/newTrace';
import { packCurve } from '../../../services/keepTrace';

/** A text file that may become a trace. */
export interface Candidate {
  fileName: string;
  name: string;
  /** null where it cannot be read at all */
  table: NumberTable | null;
  meanings: ColumnMeaning[];
  problem: string | null;
}

const MOST_BYTES = 32e6;

/** What a file seems to hold; what is wrong with it, where it holds nothing. */
export async function candidateOf(file: Pick<File, 'name' | 'size' | 'text'>): Promise<Candidate> {
  const empty = {
    fileName: file.name,
    name: file.name.replace(/\.[^.]*$/, '').slice(0, 180) || 'Trace',
    table: null,
    meanings: [],
  };
  if (file.size > MOST_BYTES)
    return { ...empty, problem: 'It is larger than 32 MB, too large for a frequency response.' };
  try {
    const table = readNumberTable(await file.text());
    return withMeanings({ ...empty, table, problem: null }, likelyMeanings(table));
  } catch (error) {
    return { ...empty, problem: sentence(error) };
  }
}

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

const sentence = (error: unknown): string =>
  error instanceof FormatError || error instanceof RangeError ? error.message : 'It cannot be read as text.';

/** Library points are 48 to an octave: what a file holds between them is lost, and told. */
const DENSE = 1.5;

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
