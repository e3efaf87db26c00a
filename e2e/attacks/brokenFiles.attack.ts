import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { netLoftProject } from '../../demo/netLoftProject';
import { readModel } from '@pebble-hall/core/drawings';
import {
  bytesOfText,
  calibrationReadings,
  flacHead,
  flacLength,
  readCalibrationText,
  readNpy,
  readNumbers,
  readTargetText,
  readWav,
  textOfBytes,
  unpackFiles,
  packFiles,
  writeNpy,
  writeWav,
} from '@pebble-hall/core/formats';
import { readLoudspeakerFile } from '@pebble-hall/core/loudspeakers';
import { readMaterials } from '@pebble-hall/core/materials';
import { checkProject, readProjectFile, writeProjectFile } from '@pebble-hall/core/project';
import { expect, it } from 'vitest';
import { harmed, isReason } from './harmed';
import { Tally, times } from './tally';

const sine = Float64Array.from({ length: 400 }, (_, i) => Math.sin(i / 5) * Math.exp(-i / 90));
const rows = Array.from(
  { length: 40 },
  (_, i) => `${(20 * 2 ** (i / 4)).toFixed(2)}\t${(i % 7) - 3}\t${i}`,
).join('\n');
const calibration = `* Siskin M1\n* serial 4417, sensitivity -38.2 dB\n* 90 degrees\n${rows}`;
const polar = `name: Dunlin\nsensitivity: 92\nplane: horizontal\nangle\t100\t1000\t8000\n${Array.from({ length: 19 }, (_, i) => `${10 * i}\t0\t${-i / 2}\t${-i}`).join('\n')}`;
const dxf =
  '0\nSECTION\n2\nENTITIES\n0\nLINE\n8\nwalls\n10\n0\n20\n0\n30\n0\n11\n5\n21\n4\n31\n0\n0\nENDSEC\n0\nEOF\n';
const obj = 'v 0 0 0\nv 5 0 0\nv 5 4 0\nv 0 4 2\nf 1 2 3 4\ng wall\nf 1 2 4\n';
const gltf = JSON.stringify({
  asset: { version: '2.0' },
  scenes: [{ nodes: [0] }],
  nodes: [{ mesh: 0 }],
  meshes: [{ primitives: [{ attributes: { POSITION: 0 } }] }],
  accessors: [{ bufferView: 0, componentType: 5126, count: 3, type: 'VEC3', min: [0, 0, 0], max: [1, 1, 0] }],
  bufferViews: [{ buffer: 0, byteLength: 36 }],
  buffers: [
    {
      byteLength: 36,
      uri: `data:application/octet-stream;base64,${Buffer.from(Float32Array.of(0, 0, 0, 1, 0, 0, 0, 1, 0).buffer).toString('base64')}`,
    },
  ],
});
const materials =
  'material\t125 Hz\t250 Hz\t500 Hz\t1000 Hz\t2000 Hz\t4000 Hz\nDrape\t0.1\t0.2\t0.3\t0.4\t0.5\t0.6\n';
const story = new Uint8Array(
  readFileSync(fileURLToPath(new URL('../../app/public/listen/story.flac', import.meta.url))),
).slice(0, 30_000);
const finite = (of: ArrayLike<number>) => Array.from(of).every(Number.isFinite);

interface Kind {
  name: string;
  whole: Uint8Array;
  /** reads it; @returns whether what was taken makes sense */
  read: (bytes: Uint8Array) => unknown;
}
const text = (name: string, whole: string, read: (text: string) => unknown): Kind => ({
  name,
  whole: bytesOfText(whole),
  read: (bytes) => read(new TextDecoder().decode(bytes)),
});

async function kinds(): Promise<Kind[]> {
  // sets of responses have an attack of their own, in workers that can be ended
  const project = writeProjectFile(netLoftProject(), []);
  return [
    text('calibration', calibration, (t) => finite(readCalibrationText(t, 'a_90.txt').levelDb)),
    text('calibration, every reading', calibration, (t) =>
      calibrationReadings(t).every((r) => finite(r.calibration.levelDb)),
    ),
    text('numbers', rows, (t) => {
      const { impulse, table } = readNumbers(t);
      return impulse ? finite(impulse.samples) : table.columns.every(finite);
    }),
    text('target', `* Target curve: House\n${rows}`, (t) =>
      readTargetText(t).target.handles.every((h) => Number.isFinite(h.levelDb)),
    ),
    text('materials', materials, (t) => readMaterials(t).every((m) => finite(m.absorption))),
    {
      name: 'polar table',
      whole: bytesOfText(polar),
      read: async (b) => (await readLoudspeakerFile(b, 'a.txt')).read.data.re.every(finite),
    },
    { name: 'WAV', whole: writeWav([sine, sine], 48_000), read: (b) => readWav(b).channels.every(finite) },
    {
      name: 'NumPy array',
      whole: writeNpy({ shape: [20, 20], values: Float32Array.from(sine) }),
      read: (b) => readNpy(b),
    },
    { name: 'FLAC head', whole: story, read: (b) => flacLength(b) >= 0 && flacHead(b).rate > 0 },
    { name: 'DXF', whole: bytesOfText(dxf), read: (b) => readModel('a.dxf', b) },
    { name: 'OBJ', whole: bytesOfText(obj), read: (b) => readModel('a.obj', b) },
    { name: 'glTF', whole: bytesOfText(gltf), read: (b) => readModel('a.gltf', b) },
    { name: 'project', whole: project, read: (b) => 'project' in checkProject(readProjectFile(b).project) },
  ];
}

async function tried(tally: Tally, kind: Kind, bytes: Uint8Array, how: string): Promise<void> {
  try {
    tally.attack(`${kind.name}, ${how}`, (await kind.read(bytes)) !== false, 'taken, and makes no sense');
  } catch (error) {
    tally.attack(`${kind.name}, ${how}`, error instanceof Error && isReason(error), String(error));
  }
}

it(
  'files of every kind, broken in every way, are read or refused with a reason',
  { timeout: 900_000 },
  async () => {
    const tally = new Tally('broken files');
    const all = await kinds();
    for (const kind of all) expect(await kind.read(kind.whole), kind.name).not.toBe(false);
    for (let i = 0; i < times(10_000); i++) {
      const kind = tally.pick(all);
      const { bytes, how } = harmed(tally, kind.whole);
      await tried(tally, kind, bytes, how);
    }
    expect(tally.told()).toEqual([]);
  },
);

it(
  'projects with a value or an id changed anywhere are refused, or hold together',
  { timeout: 900_000 },
  async () => {
    const tally = new Tally('projects with a value changed');
    const whole = unpackFiles(writeProjectFile(netLoftProject(), []), { files: 10, bytes: 1e8 });
    const plain = textOfBytes(whole['project.json']!);
    const values = [
      null,
      -1,
      0,
      1e300,
      -1e300,
      1e17,
      '',
      'constructor',
      '__proto__',
      'nothing',
      [],
      {},
      true,
      'x'.repeat(300),
      [[]],
    ];
    const kind: Kind = {
      name: 'project',
      whole: new Uint8Array(),
      read: (bytes) => {
        const { project } = readProjectFile(bytes);
        const again = readProjectFile(writeProjectFile(project, []));
        return 'project' in checkProject(again.project) && !/e\+?(300|17)\b/.test(JSON.stringify(project));
      },
    };
    for (let i = 0; i < times(2000); i++) {
      const manifest = JSON.parse(plain) as { project: unknown };
      const path: string[] = [];
      let on = manifest.project as Record<string, unknown>;
      for (;;) {
        const key = tally.pick(Object.keys(on));
        path.push(key);
        const next = on[key];
        if (typeof next === 'object' && next !== null && Object.keys(next).length > 0 && tally.random(8) > 0)
          on = next as Record<string, unknown>;
        else {
          const value = tally.pick(values);
          if (tally.random(10) === 0 && typeof next === 'object' && next !== null && Array.isArray(on))
            on.push(next);
          else if (tally.random(10) === 0) delete on[key];
          else on[key] = value;
          break;
        }
      }
      await tried(
        tally,
        kind,
        packFiles({ 'project.json': bytesOfText(JSON.stringify(manifest)) }),
        path.join('.'),
      );
    }
    expect(tally.told()).toEqual([]);
  },
);
