import Papa from 'papaparse';
import { sectionAtRate, type Section } from '../path/index.js';
import type { Biquad } from '../signal/index.js';

/** Sections of one output, for files. */
export interface NamedSections {
  name: string;
  sections: Section[];
}

/** Which sign the feedback coefficients bear: y = b0 x + ... - a1 y1 - a2 y2, or y = b0 x + ... + a1 y1 + a2 y2. */
export type SignConvention = 'subtracted' | 'added';

/** Coefficients in a convention, a0 = 1. */
export function biquadIn(convention: SignConvention, { b0, b1, b2, a1, a2 }: Biquad): Biquad {
  return convention === 'subtracted' ? { b0, b1, b2, a1, a2 } : { b0, b1, b2, a1: -a1 + 0, a2: -a2 + 0 };
}

const SIGNS: Record<SignConvention, string> = {
  subtracted: 'y[n] = b0 x[n] + b1 x[n-1] + b2 x[n-2] - a1 y[n-1] - a2 y[n-2]',
  added: 'y[n] = b0 x[n] + b1 x[n-1] + b2 x[n-2] + a1 y[n-1] + a2 y[n-2]',
};

/** Readable list: kind, frequency, gain, Q. */
export function sectionsText(outputs: NamedSections[]): string {
  const lines = outputs.flatMap(({ name, sections }) => [
    name,
    ...(sections.length === 0 ? ['  no sections'] : []),
    ...sections.map(
      (s, i) =>
        `  ${String(i + 1).padStart(2)}  ${s.kind.padEnd(10)}  ${String(s.frequency).padStart(8)} Hz  ${s.gainDb.toFixed(1).padStart(6)} dB  Q ${s.q.toFixed(2)}`,
    ),
    '',
  ]);
  return [
    'Parametric sections, in series in the order given.',
    'Q of a peak: frequency over its bandwidth at half the gain in dB; of a shelf: of its poles.',
    '',
    ...lines,
  ].join('\n');
}

/**
 * Table with biquad coefficients at a rate in both sign conventions; the heading tells which is which. At another rate than the one the
 * sections were made for, each has the level that it has there, and the table tells how far it deviates.
 */
export function sectionsCsv(outputs: NamedSections[], madeRate: number, rate: number): string {
  const heading = [
    ...['output', 'section', 'kind', 'frequency Hz', 'gain dB', 'Q', 'rate Hz', 'b0', 'b1', 'b2'],
    ...['a1 (subtracted)', 'a2 (subtracted)', 'a1 (added)', 'a2 (added)', 'deviation dB'],
  ];
  const rows = outputs.flatMap(({ name, sections }) =>
    sections.map((s, i) => {
      const { biquad: b, deviationDb } = sectionAtRate(s, madeRate, rate);
      const added = biquadIn('added', b);
      const { b0, b1, b2, a1, a2 } = b;
      return [
        ...[name, i + 1, s.kind, s.frequency, s.gainDb, s.q, rate],
        ...[b0, b1, b2, a1, a2, added.a1, added.a2, Number(deviationDb.toFixed(3))],
      ];
    }),
  );
  return `${Papa.unparse([heading, ...rows], { newline: '\n' })}\n`;
}

/** The same as JSON. */
export function sectionsJson(outputs: NamedSections[], madeRate: number, rate: number): string {
  const value = {
    format: 'pebble-hall sections',
    rateHz: rate,
    madeForRateHz: madeRate,
    conventions: SIGNS,
    outputs: outputs.map(({ name, sections }) => ({
      name,
      sections: sections.map((s) => {
        const { biquad, deviationDb } = sectionAtRate(s, madeRate, rate);
        return {
          ...s,
          deviationDb,
          biquad: { subtracted: biquadIn('subtracted', biquad), added: biquadIn('added', biquad) },
        };
      }),
    })),
  };
  return `${JSON.stringify(value, null, 2)}\n`;
}
