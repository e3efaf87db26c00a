import type { Point } from '../geometry/index.js';

/** An impulse response that goes into a set. */
export interface WrittenResponse {
  name: string;
  samples: Float64Array;
  /** index of time zero */
  zero: number;
  /** where the microphone was; null where nobody knows */
  listener: Point | null;
}

/** What netCDF calls a length that is nothing else, after its documentation. */
const DIMENSION = 'This is a netCDF dimension but not a netCDF variable.';
let made = 0;

/**
 * Impulse responses of one rate as an AES69 file (2022, convention GeneralFIR): each a measurement with one receiver. What comes
 * ahead of time zero is kept: every response begins at the same time, which `Data.Delay` tells, in samples, negative.
 * @param about lines for its comment
 * @throws RangeError for no response
 */
export async function writeAes69Responses(
  title: string,
  about: readonly string[],
  rate: number,
  responses: readonly WrittenResponse[],
): Promise<Uint8Array<ArrayBuffer>> {
  const [first] = responses;
  if (!first) throw new RangeError('writeAes69Responses: there is no response');
  const hdf = await import('h5wasm');
  const { FS } = await hdf.ready;
  const path = `/written-${++made}`;
  const file = new hdf.File(path, 'w');
  const longest = Math.max(...responses.map((r) => r.samples.length));
  const now = new Date().toISOString().slice(0, 19).replace('T', ' ');
  const attributes: Record<string, string> = {
    Conventions: 'SOFA',
    Version: '2.1',
    SOFAConventions: 'GeneralFIR',
    SOFAConventionsVersion: '1.0',
    DataType: 'FIR',
    RoomType: 'reverberant',
    Title: title,
    DateCreated: now,
    DateModified: now,
    APIName: 'Pebble Hall',
    APIVersion: '1',
    ApplicationName: 'Pebble Hall',
    ApplicationVersion: '1',
    AuthorContact: '',
    Organization: '',
    License: 'No license provided, ask the author for permission',
    References: '',
    Origin: '',
    History: '',
    Comment: [...about, ...responses.map((r, i) => `measurement ${i + 1}: ${r.name}`)].join('\n'),
  };
  for (const [name, value] of Object.entries(attributes)) file.create_attribute(name, value || ' ');
  const sizes: Record<string, number> = { M: responses.length, R: 1, E: 1, N: longest, I: 1, C: 3 };
  for (const [name, size] of Object.entries(sizes)) {
    file.create_dataset({ name, data: new Float32Array(size), shape: [size] });
    dataset(name).make_scale(`${DIMENSION}${String(size).padStart(10)}`);
  }
  function dataset(name: string): InstanceType<typeof hdf.Dataset> {
    return file.get(name) as InstanceType<typeof hdf.Dataset>;
  }
  const put = (name: string, data: Float64Array, along: string[], about: Record<string, string> = {}) => {
    file.create_dataset({ name, data, shape: along.map((d) => sizes[d]!) });
    along.forEach((d, i) => dataset(name).attach_scale(i, d));
    for (const [key, value] of Object.entries(about)) dataset(name).create_attribute(key, value);
  };
  const metres = { Type: 'cartesian', Units: 'metre' };
  const at = (points: (Point | null)[]) =>
    Float64Array.from(points.flatMap((p) => (p ? [p.x, p.y, p.z] : [0, 0, 0])));
  put('ListenerPosition', at(responses.map((r) => r.listener)), ['M', 'C'], metres);
  put('ReceiverPosition', at([null]), ['R', 'C', 'I'], metres);
  put('SourcePosition', at([null]), ['I', 'C'], metres);
  put('EmitterPosition', at([null]), ['E', 'C', 'I'], metres);
  const samples = new Float64Array(responses.length * longest);
  responses.forEach((r, m) => samples.set(r.samples, m * longest));
  put('Data.IR', samples, ['M', 'R', 'N']);
  put('Data.SamplingRate', Float64Array.of(rate), ['I'], { Units: 'hertz' });
  put(
    'Data.Delay',
    Float64Array.from(responses, (r) => -r.zero),
    ['M', 'R'],
  );
  file.close();
  const bytes = (FS.readFile(path) as Uint8Array).slice();
  FS.unlink(path);
  return bytes as Uint8Array<ArrayBuffer>;
}
