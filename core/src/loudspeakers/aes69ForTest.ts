import * as hdf from 'h5wasm';

export interface Aes69Parts {
  convention?: string;
  /** azimuth, elevation in degrees, distance in metres */
  receivers: [number, number, number][];
  frequency: number[];
  /** pressure of receiver r at frequency n */
  pressure: (r: number, n: number) => { re: number; im: number };
  view?: [number, number, number];
  name?: string;
  /** leaves this out */
  without?: string;
}

let made = 0;

/** An AES69 file of the convention FreeFieldDirectivityTF, as bytes. */
export async function aes69File(parts: Aes69Parts): Promise<Uint8Array> {
  const { FS } = await hdf.ready;
  const path = `/made-${++made}`;
  const file = new hdf.File(path, 'w');
  const { receivers, frequency, pressure, without } = parts;
  file.create_attribute('Conventions', 'SOFA');
  file.create_attribute('Version', '2.1');
  file.create_attribute('SOFAConventions', parts.convention ?? 'FreeFieldDirectivityTF');
  file.create_attribute('SOFAConventionsVersion', '1.1');
  file.create_attribute('DataType', 'TF');
  file.create_attribute('Title', parts.name ?? 'Heron 12');
  const put = (name: string, values: number[], shape: number[], attributes: Record<string, string> = {}) => {
    if (name === without) return;
    file.create_dataset({ name, data: Float64Array.from(values), shape });
    const set = file.get(name)!;
    for (const [key, value] of Object.entries(attributes))
      (set as unknown as { create_attribute: (n: string, v: string) => void }).create_attribute(key, value);
  };
  const [many, count] = [receivers.length, frequency.length];
  const all = receivers.flatMap((_, r) => frequency.map((__, n) => pressure(r, n)));
  put(
    'Data.Real',
    all.map((p) => p.re),
    [1, many, count],
  );
  put(
    'Data.Imag',
    all.map((p) => p.im),
    [1, many, count],
  );
  put('N', frequency, [count], { LongName: 'frequency', Units: 'hertz' });
  const spherical = { Type: 'spherical', Units: 'degree, degree, metre' };
  put('ReceiverPosition', receivers.flat(), [many, 3, 1], spherical);
  put('SourcePosition', [0, 0, 0], [1, 3], { Type: 'cartesian', Units: 'metre' });
  put('ListenerPosition', [0, 0, 0], [1, 3], { Type: 'cartesian', Units: 'metre' });
  put('SourceView', parts.view ?? [1, 0, 0], [1, 3], { Type: 'cartesian', Units: 'metre' });
  put('SourceUp', [0, 0, 1], [1, 3], { Type: 'cartesian', Units: 'metre' });
  file.close();
  const bytes = FS.readFile(path) as Uint8Array;
  FS.unlink(path);
  return bytes.slice();
}

/** Directions every so many degrees, azimuth by elevation, both poles once. */
export function sphereGrid(step: number, distance = 2): [number, number, number][] {
  const out: [number, number, number][] = [[0, -90, distance]];
  for (let el = -90 + step; el < 90; el += step)
    for (let az = 0; az < 360; az += step) out.push([az, el, distance]);
  return [...out, [0, 90, distance]];
}
