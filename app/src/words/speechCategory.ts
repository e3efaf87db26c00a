/** Least index of each category (IEC 60268-16:2011, annex F), from the best on. */
const CATEGORIES: [name: string, least: number][] = [
  ['A+', 0.76],
  ['A', 0.72],
  ['B', 0.68],
  ['C', 0.64],
  ['D', 0.6],
  ['E', 0.56],
  ['F', 0.52],
  ['G', 0.48],
  ['H', 0.44],
  ['I', 0.4],
  ['J', 0.36],
];

/** The qualification and category of a speech transmission index, as in "good (IEC 60268-16 category C)". */
export function speechCategory(sti: number): string {
  const word =
    sti >= 0.75 ? 'excellent' : sti >= 0.6 ? 'good' : sti >= 0.45 ? 'fair' : sti >= 0.3 ? 'poor' : 'bad';
  const category = CATEGORIES.find(([, least]) => sti >= least)?.[0] ?? 'U';
  return `${word} (IEC 60268-16 category ${category})`;
}
