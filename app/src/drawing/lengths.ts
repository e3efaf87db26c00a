/** Metres in a foot. */
export const FOOT_M = 0.3048;

/** How many metres one unit of length is. */
export const unitM = (unit: 'm' | 'ft'): number => (unit === 'ft' ? FOOT_M : 1);

/** A length in words: metres or feet, without noughts that say nothing. */
export const lengthText = (metres: number, unit: 'm' | 'ft', digits = 2): string =>
  `${Number((metres / unitM(unit)).toFixed(digits))} ${unit}`;
