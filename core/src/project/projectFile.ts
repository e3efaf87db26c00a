import {
  bytesOfText,
  crc32,
  FormatError,
  packFiles,
  readWav,
  textOfBytes,
  unpackFiles,
  writeWav,
} from '../formats/index.js';
import { arraysOf, enclosedIds } from './arraysOf.js';
import { migrateProject } from './migrate.js';
import type { RunRays } from '../runs/index.js';
import { addRays, raysFrom, type TellsRays } from './runFiles.js';
import { checkProject } from './schema.js';
import { withoutStrays } from './withoutStrays.js';
import { PROJECT_VERSION, type EnclosedFile, type Project, type ProjectArray } from './types.js';

const FORMAT = 'pebble-hall project';
/** Five arrays for every sweep that a project may hold. */
/** 180 dB over full scale. */
const LOUDEST = 1e9;
const LIMITS = { files: 100_000, bytes: 2e9 };

interface Manifest {
  format: string;
  version: number;
  project: unknown;
  /** CRC-32 of the WAV file, as a zip reader need not check its own */
  arrays: { id: string; kind: 'trace' | 'filter'; zero: number; crc: number }[];
  /** files of others that lie beside it as they came; files of before there were any have no such list */
  enclosed?: { id: string; name: string; type: string; crc: number }[];
  /** what was traced in runs of the room model; files of before there were any have no such list */
  rays?: TellsRays[];
}

/** Minus infinity (a level of nothing; `marginDb` is what `snrDb` was called up to version 7) has no form in JSON; it is written as null by JSON itself and read back here. */
const LEVEL_KEYS = new Set(['snrDb', 'marginDb', 'noiseDb', 'signalDb', 'distortionDb']);

/**
 * A project as one file: a zip of project.json, a WAV (float 32) for every impulse response and filter, the drawings of
 * others as they came, and a NumPy array for each group of rays.
 * @throws RangeError when an array or a file that the project refers to is missing
 */
export function writeProjectFile(
  project: Project,
  arrays: ProjectArray[],
  enclosed: EnclosedFile[] = [],
  rays: readonly RunRays[] = [],
): Uint8Array {
  const byId = new Map(arrays.map((a) => [a.id, a]));
  const files: Record<string, Uint8Array> = {};
  const manifest: Manifest = { format: FORMAT, version: PROJECT_VERSION, project, arrays: [] };
  for (const id of arraysOf(project)) {
    const array = byId.get(id);
    if (!array) throw new RangeError(`writeProjectFile: array ${id} is missing`);
    const wav = writeWav([array.samples], array.rate);
    manifest.arrays.push({ id, kind: array.kind, zero: array.zero, crc: crc32(wav) });
    files[pathOf(array)] = wav;
  }
  for (const id of enclosedIds(project)) {
    const file = enclosed.find((f) => f.id === id);
    if (!file) throw new RangeError(`writeProjectFile: file ${id} is missing`);
    const { name, type, bytes } = file;
    (manifest.enclosed ??= []).push({ id, name, type, crc: crc32(bytes) });
    files[enclosedPath(file)] = bytes;
  }
  if (rays.length > 0) manifest.rays = rays.map((row) => addRays(files, row));
  files['project.json'] = bytesOfText(JSON.stringify(manifest, null, 1));
  return packFiles(files);
}

/**
 * Reads a project file.
 * @throws FormatError with the reason: cut off, damaged, newer, too large, or not a project
 */
export function readProjectFile(zip: Uint8Array): {
  project: Project;
  arrays: ProjectArray[];
  enclosed: EnclosedFile[];
  rays: RunRays[];
} {
  const files = unpackFiles(zip, LIMITS);
  const json = files['project.json'];
  if (!json) throw new FormatError('The file holds no project.json, so it is not a Pebble Hall project.');
  let manifest: Manifest;
  try {
    manifest = JSON.parse(textOfBytes(json), (key, value) =>
      value === null && LEVEL_KEYS.has(key) ? -Infinity : value,
    ) as Manifest;
  } catch {
    throw new FormatError('The project.json in the file is damaged.');
  }
  if (manifest?.format !== FORMAT) throw new FormatError('The file is not a Pebble Hall project.');
  if (manifest.version > PROJECT_VERSION) {
    throw new FormatError(
      `The project was saved by a newer Pebble Hall (version ${manifest.version}; this one reads up to ` +
        `${PROJECT_VERSION}). Open it there, or update this one.`,
    );
  }
  let carried: unknown;
  try {
    carried = migrateProject(manifest.project);
  } catch {
    throw new FormatError('The project in the file cannot be carried over from its older version.');
  }
  const checked = checkProject(carried);
  if ('problem' in checked)
    throw new FormatError(`The project in the file does not fit together: ${checked.problem}.`);
  const project = withoutStrays(checked.project);
  const described = new Map((Array.isArray(manifest.arrays) ? manifest.arrays : []).map((a) => [a.id, a]));
  const arrays = [...arraysOf(project)].map((id): ProjectArray => {
    const about = described.get(id);
    const bytes = about && files[pathOf(about)];
    if (!about || !bytes) throw new FormatError(`The file lacks the sound data of ${id}.`);
    if (crc32(bytes) !== about.crc) throw new FormatError(`The sound data of ${id} in the file are damaged.`);
    const { rate, channels } = readWav(bytes);
    const samples = Float32Array.from(channels[0]!);
    if (!(rate >= 1000 && rate <= 768_000))
      throw new FormatError(`The rate of ${id}, ${rate} Hz, is none of sound.`);
    const loud = samples.findIndex((v) => !(Math.abs(v) <= LOUDEST));
    if (loud >= 0)
      throw new FormatError(`Sample ${loud} of ${id} is ${samples[loud]}, beyond what any response holds.`);
    if (!(Number.isInteger(about.zero) && about.zero >= 0 && about.zero < samples.length)) {
      throw new FormatError(`Time zero of ${id} lies outside its samples.`);
    }
    return { id, kind: about.kind === 'filter' ? 'filter' : 'trace', rate, zero: about.zero, samples };
  });
  const listed = new Map((Array.isArray(manifest.enclosed) ? manifest.enclosed : []).map((f) => [f.id, f]));
  const enclosed = [...enclosedIds(project)].map((id): EnclosedFile => {
    const about = listed.get(id);
    const bytes = about && files[enclosedPath(about)];
    if (!about || !bytes) throw new FormatError(`The file lacks a drawing that lies under the plan (${id}).`);
    if (crc32(bytes) !== about.crc)
      throw new FormatError(`The drawing “${about.name}” in the file is damaged.`);
    return { id, name: String(about.name), type: String(about.type ?? ''), bytes };
  });
  const told = Array.isArray(manifest.rays) ? manifest.rays : [];
  const rays = told.map((row) => raysFrom(files, row, project.roomRuns));
  return { project, arrays, enclosed, rays };
}

/** Under its id, with the ending that tells other programs what it is. */
const enclosedPath = ({ id, name }: { id: string; name: string }) => {
  const ending = /\.[a-z0-9]{1,5}$/i.exec(String(name))?.[0].toLowerCase() ?? '';
  return `drawings/${id}${ending}`;
};

const pathOf = ({ kind, id }: { kind: string; id: string }) =>
  `${kind === 'filter' ? 'filters' : 'traces'}/${id}.wav`;
