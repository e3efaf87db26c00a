import type { Point } from '../geometry/index.js';

/** What was heard at a place, as it goes into a set. */
export interface WrittenResponse {
  name: string;
  /** impulse responses: of each receiver one, as many as of the others */
  channels: readonly Float64Array[];
  /** index of time zero */
  zero: number;
  /** where the microphone was; null where nobody knows */
  listener: Point | null;
  /** where the sound came from; null where nobody knows */
  source?: Point | null;
  /** unit vector in which the listener looked; nothing where nobody knows */
  view?: Point;
}

/** What netCDF calls a length that is nothing else, after its documentation. */
const DIMENSION = 'This is a netCDF dimension but not a netCDF variable.';
let made = 0;

/**
 * Impulse responses of one rate as an AES69 file (2022, convention GeneralFIR), each a measurement. What comes
 * ahead of time zero is kept: every response begins at the same time, which `Data.Delay` tells, in samples, negative.
 * @param about lines for its comment @param receivers where they are against the listener, metres: x ahead, y to the left; one in the middle
 * @throws RangeError for no response
 */
export async function writeAes69Responses(
  title: string,
  about: readonly string[],
  rate: number,
  responses: readonly WrittenResponse[],
  receivers: readonly Point[] = [{ x: 0, y: 0, z: 0 }],
): Promise<Uint8Array<ArrayBuffer>> {
  const [first] = responses;
  if (!first) throw new RangeError('writeAes69Responses: there is no response');
  if (responses.some((r) => r.channels.length !== receivers.length))
    throw new RangeError('writeAes69Responses: every response needs one for each receiver');
  const hdf = await import('h5wasm');
  const { FS } = await hdf.ready;
  const path = `/written-${++made}`;
  const file = new hdf.File(path, 'w');
  const longest = Math.max(...responses.flatMap((r) => r.channels.map((c) => c.length)));
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
  const sizes: Record<string, number> = {
    M: responses.length,
    R: receivers.length,
    E: 1,
    N: longest,
    I: 1,
    C: 3,
  };
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
  if (responses.every((r) => r.view)) {
    put('ListenerView', at(responses.map((r) => r.view!)), ['M', 'C'], metres);
    put('ListenerUp', Float64Array.of(0, 0, 1), ['I', 'C'], metres);
  }
  put('ReceiverPosition', at([...receivers]), ['R', 'C', 'I'], metres);
  put('SourcePosition', at(responses.map((r) => r.source ?? null)), ['M', 'C'], metres);
  put('EmitterPosition', at([null]), ['E', 'C', 'I'], metres);
  const samples = new Float64Array(responses.length * receivers.length * longest);
  responses.flatMap((r) => r.channels).forEach((channel, i) => samples.set(channel, i * longest));
  put('Data.IR', samples, ['M', 'R', 'N']);
  put('Data.SamplingRate', Float64Array.of(rate), ['I'], { Units: 'hertz' });
  put('Data.Delay', Float64Array.from(responses.flatMap((r) => receivers.map(() => -r.zero))), ['M', 'R']);
  file.close();
  const bytes = (FS.readFile(path) as Uint8Array).slice();
  FS.unlink(path);
  return bytes as Uint8Array<ArrayBuffer>;
}
