import type { MendedMesh } from '@pebble-hall/core/tracing';

/** What was done to a drawing so that it can be traced. */
export function mendedSentence({ joined, doubled, tiny, filled }: MendedMesh['mended']): string {
  const count = (n: number, one: string, more: string) => (n === 0 ? [] : [`${n} ${n === 1 ? one : more}`]);
  const area = filled.reduce((a, b) => a + b, 0);
  const done = [
    ...count(joined, 'corner joined to the one beside it', 'corners joined to those beside them'),
    ...count(doubled, 'doubled face left out', 'doubled faces left out'),
    ...count(tiny, 'face without an area left out', 'faces without an area left out'),
    ...count(
      filled.length,
      `flat hole closed, ${area.toFixed(2)} m²`,
      `flat holes closed, ${area.toFixed(2)} m² in all`,
    ),
  ];
  return done.length === 0 ? 'Nothing had to be mended.' : `Mended: ${done.join('; ')}.`;
}
