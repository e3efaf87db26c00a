import { octavesOfQ, type Shape, type ShapeKind, type WantedShape } from '@pebble-hall/core/shapes';
import { formatHz, signedDb } from '../charts/chartMath';

export const SHAPE_NAMES: Record<ShapeKind, string> = {
  peaking: 'Peaking section',
  'low shelf': 'Low shelf',
  'high shelf': 'High shelf',
  'high-pass': 'High-pass',
  'low-pass': 'Low-pass',
  'all-pass': 'All-pass',
};

const ORDINALS = ['', 'first', 'second', 'third', 'fourth', 'fifth', 'sixth', 'seventh', 'eighth', 'ninth', 'tenth', 'eleventh', 'twelfth']; // prettier-ignore
export const ordinal = (order: number): string => ORDINALS[order] ?? `${order}th`;

const figure = (value: number) => Number(value.toPrecision(3)).toString();

/** A shape in words, as one would write it on a desk. */
export function shapeSentence(shape: Shape): string {
  const at = formatHz(shape.hz);
  switch (shape.kind) {
    case 'peaking':
      return `${signedDb(shape.gainDb)} dB at ${at}, Q ${figure(shape.q)} (${figure(octavesOfQ(shape.q))} octaves)`;
    case 'low shelf':
    case 'high shelf':
      return `${shape.kind} of ${signedDb(shape.gainDb)} dB at ${at}, ${shape.q === null ? 'first order' : `second order, Q ${figure(shape.q)}`}`;
    case 'high-pass':
    case 'low-pass':
      return `${shape.family} ${shape.kind} of ${ordinal(shape.order)} order at ${at}`;
    case 'all-pass':
      return `all-pass of ${ordinal(shape.order)} order at ${at}${shape.q === null ? '' : `, Q ${figure(shape.q)}`}`;
  }
}

/** What is looked for. */
export function wantedName(wanted: WantedShape): string {
  const name = SHAPE_NAMES[wanted.kind];
  switch (wanted.kind) {
    case 'peaking':
      return name;
    case 'low shelf':
    case 'high shelf':
      return `${name}, ${wanted.order === null ? 'any order' : `${ordinal(wanted.order)} order`}${wanted.undershoots ? ', may undershoot' : ''}`;
    case 'high-pass':
    case 'low-pass':
      return `${name}, ${wanted.family ?? 'any family'}, ${wanted.order === null ? 'any order' : `${ordinal(wanted.order)} order`}`;
    case 'all-pass':
      return `${name}, ${wanted.order === null ? 'any order' : `${ordinal(wanted.order)} order`}`;
  }
}
