import Papa from 'papaparse';
import { OCTAVES, type PerOctave } from '../room/octaves.js';

/** A material as text tells it. */
export interface ReadMaterial {
  name: string;
  absorption: PerOctave;
  /** null where the text has none */
  scattering: PerOctave | null;
}

const MOST_BYTES = 1_000_000;
const MOST_MATERIALS = 1000;
const MOST_NAME = 80;
const SCATTERING = ' scattering';

/** Materials as a table that any spreadsheet reads: a row each, a column for each octave; scattering in a row of its own. */
export const writeMaterials = (materials: readonly ReadMaterial[]): string =>
  Papa.unparse(
    [
      ['material', ...OCTAVES.map((hz) => `${hz} Hz`)],
      ...materials.flatMap(({ name, absorption, scattering }) => [
        [name, ...absorption],
        ...(scattering ? [[name + SCATTERING, ...scattering]] : []),
      ]),
    ],
    { delimiter: '\t', newline: '\n' },
  );

/**
 * Reads what `writeMaterials` writes, and tables like it: a name and six (125 Hz to 4 kHz) or eight coefficients in a row, parted by
 * tabs, semicolons or commas; a decimal comma where commas do not part.
 * @throws Error with the line and what to do about it
 */
export function readMaterials(text: string): ReadMaterial[] {
  if (text.length > MOST_BYTES)
    throw new Error('The table is larger than 1 MB. Keep the materials that are needed.');
  const delimiter = ['\t', ';', ','].find((d) => text.includes(d)) ?? '\t';
  const { data } = Papa.parse<string[]>(text, { delimiter, skipEmptyLines: 'greedy' });
  if (data.length > 2 * MOST_MATERIALS + 1)
    throw new Error(`The table has more than ${MOST_MATERIALS} materials.`);
  const found = new Map<string, ReadMaterial>();
  data.forEach((row, i) => {
    const name = (row[0] ?? '').trim().slice(0, MOST_NAME + SCATTERING.length);
    const values = row.slice(1).filter((v) => v.trim() !== '');
    // a heading says no shares
    if (i === 0 && values.some((v) => /hz/i.test(v) || Number(v) > 1.5)) return;
    if (!name) throw new Error(`Line ${i + 1} has no name.`);
    const shares = sharesOf(values, i + 1, delimiter);
    const of = name.endsWith(SCATTERING) ? found.get(name.slice(0, -SCATTERING.length)) : undefined;
    if (of) found.set(of.name, { ...of, scattering: shares });
    else
      found.set(name.slice(0, MOST_NAME), {
        name: name.slice(0, MOST_NAME),
        absorption: shares,
        scattering: null,
      });
  });
  if (found.size === 0)
    throw new Error('There is no material in it: a name and eight numbers in a row are one.');
  return [...found.values()];
}

function sharesOf(values: string[], line: number, delimiter: string): PerOctave {
  if (values.length !== 6 && values.length !== 8)
    throw new Error(
      `Line ${line} has ${values.length} coefficients: six (125 Hz to 4 kHz) or eight (63 Hz to 8 kHz) are wanted.`,
    );
  const shares = values.map((v) => Number(delimiter === ',' ? v : v.replace(',', '.')));
  const bad = shares.findIndex((s) => !(s >= 0 && s <= 1.2));
  if (bad >= 0)
    throw new Error(
      `Line ${line}: "${values[bad]!.slice(0, 20)}" is no share between 0 and 1. Percentages have to be divided by 100.`,
    );
  // measured in a reverberation room a coefficient may come out above 1, by its edges
  const whole = shares.map((s) => Math.min(1, s));
  return whole.length === 8 ? whole : [whole[0]!, ...whole, whole[5]!];
}
