import { crc32, FormatError, readNpy, writeNpy } from '../formats/index.js';
import { EMISSION_COLUMNS, EMISSION_ROWS, SECTORS, STRETCHES_S } from '../tracing/index.js';
import { ROWS_PER_RECEIVER, type RoomRun, type RunRays } from '../runs/index.js';

/** What the manifest of a project file tells of a group of rays; its numbers lie beside it. */
export type TellsRays = Omit<RunRays, 'data' | 'directions' | 'emission' | 'bins'> & {
  /** CRC-32 of its file, and of that of the emission; null where it has none */
  crc: number;
  emissionCrc: number | null;
  /** of where it comes from; files of before this was kept have none */
  directionsCrc?: number | null;
};

const OCTAVES = 8;
const EMISSION_SHAPE = [EMISSION_ROWS, EMISSION_COLUMNS, OCTAVES];
const CELLS = STRETCHES_S.length * SECTORS;
const nameOf = (
  { runId, source, group }: Pick<RunRays, 'runId' | 'source' | 'group'>,
  what: '' | '-emission' | '-directions' = '',
) => `runs/${runId}/source-${source + 1}-group-${group + 1}${what}.npy`;

/** Puts a group of rays among the files of a project. @returns what the manifest tells of it */
export function addRays(files: Record<string, Uint8Array>, row: RunRays): TellsRays {
  const { data, directions, emission, bins, ...told } = row;
  const bytes = writeNpy({ shape: [data.length / bins, bins], values: data });
  files[nameOf(row)] = bytes;
  const add = (name: string, shape: number[], values: Float32Array | null): number | null => {
    if (!values) return null;
    files[name] = writeNpy({ shape, values });
    return crc32(files[name]);
  };
  return {
    ...told,
    crc: crc32(bytes),
    emissionCrc: add(nameOf(row, '-emission'), EMISSION_SHAPE, emission),
    directionsCrc: add(nameOf(row, '-directions'), [(directions?.length ?? 0) / CELLS, CELLS], directions),
  };
}

/** A group of rays out of the files of a project. @throws FormatError where it does not fit its run, or is damaged */
export function raysFrom(
  files: Record<string, Uint8Array>,
  told: TellsRays,
  runs: readonly RoomRun[],
): RunRays {
  const run = runs.find((r) => r.id === told?.runId);
  const { source, group, rays } = told ?? {};
  if (!run || !isWhole(source, run.sources.length) || !isWhole(group, 100_000))
    throw new FormatError('The file tells of rays that belong to none of its runs.');
  const damaged = () => new FormatError(`The rays of the run “${run.name}” in the file are damaged.`);
  const read = (name: string, crc: number) => {
    const bytes = files[name];
    if (!bytes || crc32(bytes) !== crc) throw damaged();
    return readNpy(bytes);
  };
  const { shape, values } = read(nameOf(told), told.crc);
  const emission = told.emissionCrc === null ? null : read(nameOf(told, '-emission'), told.emissionCrc);
  const { directionsCrc = null } = told;
  const directions = directionsCrc === null ? null : read(nameOf(told, '-directions'), directionsCrc);
  const perOctave = (list: unknown, least: number) =>
    Array.isArray(list) &&
    list.length === OCTAVES &&
    // a power of nothing is minus infinity, which JSON writes as null
    list.every((v) => v === null || (typeof v === 'number' && v >= least && Number.isFinite(v)));
  const isRight =
    shape.length === 2 &&
    shape[0] === ROWS_PER_RECEIVER * run.receivers.length &&
    shape[1]! > 0 &&
    rays === run.raysPerGroup &&
    values.every((v) => v >= 0 && v < Infinity) &&
    (emission === null ||
      (emission.shape.join() === EMISSION_SHAPE.join() &&
        emission.values.every((v) => v >= 0 && v < Infinity))) &&
    (directions === null ||
      (directions.shape.join() === [run.receivers.length, CELLS].join() &&
        directions.values.every((v) => v >= 0 && v < Infinity))) &&
    perOctave(told.powerDb, -1000) &&
    [told.sent, told.absorbed, told.escaped, told.cut].every((list) => perOctave(list, 0)) &&
    Number.isFinite(told.delayS) &&
    isWhole(told.leaks, 1e9) &&
    (told.leakAt === null || [told.leakAt?.x, told.leakAt?.y, told.leakAt?.z].every(Number.isFinite));
  if (!isRight) throw damaged();
  const { crc: _crc, emissionCrc: _emissionCrc, directionsCrc: _directionsCrc, ...row } = told;
  return {
    ...row,
    powerDb: told.powerDb.map((v) => v ?? -Infinity),
    bins: shape[1]!,
    data: values,
    directions: directions && directions.values,
    emission: emission && emission.values,
  };
}

const isWhole = (value: number | undefined, below: number): boolean =>
  Number.isInteger(value) && value! >= 0 && value! < below;
