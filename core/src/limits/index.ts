/** What the public functions of core refuse: numbers that are none, and values that mean nothing. */

const list = (values: ArrayLike<number>, i: number) => `value ${i} is ${values[i]}`;

/** @throws RangeError with value and range, unless `value` lies within [from, to] */
export function needWithin(where: string, what: string, value: number, from: number, to: number): void {
  if (!(value >= from && value <= to))
    throw new RangeError(`${where}: ${what} must be ${from} to ${to}, got ${value}`);
}

/** @throws RangeError with value and range, unless `value` is finite and above `least` */
export function needAbove(where: string, what: string, value: number, least: number): void {
  if (!(value > least && value < Infinity))
    throw new RangeError(`${where}: ${what} must be finite and above ${least}, got ${value}`);
}

/** @throws RangeError with the value, unless it is a finite number */
export function needNumber(where: string, what: string, value: number): void {
  if (!Number.isFinite(value))
    throw new RangeError(`${where}: ${what} must be a finite number, got ${value}`);
}

/** @throws RangeError with value and range, unless it is whole and within [from, to] */
export function needWhole(where: string, what: string, value: number, from: number, to: number): void {
  if (!(Number.isInteger(value) && value >= from && value <= to))
    throw new RangeError(`${where}: ${what} must be a whole number from ${from} to ${to}, got ${value}`);
}

/** @throws RangeError with place and value of the first one that is not finite */
export function needFinite(where: string, what: string, values: ArrayLike<number>): void {
  // what is not finite makes the sum so, too; one addition for each is all that good values cost
  let sum = 0;
  for (let i = 0; i < values.length; i++) sum += values[i]!;
  if (Number.isFinite(sum)) return;
  for (let i = 0; i < values.length; i++)
    if (!Number.isFinite(values[i]!))
      throw new RangeError(`${where}: ${what} must be finite, ${list(values, i)}`);
}

/** @throws RangeError for levels that are NaN or +Infinity; -Infinity is silence */
export function needLevels(where: string, what: string, values: ArrayLike<number>): void {
  for (let i = 0; i < values.length; i++)
    if (!(values[i]! < Infinity))
      throw new RangeError(`${where}: ${what} must be numbers in dB, ${list(values, i)}`);
}

/** @throws RangeError unless the values lie above `least` and ascend */
export function needAscending(where: string, what: string, values: ArrayLike<number>, least: number): void {
  for (let i = 0; i < values.length; i++) {
    const isGood = values[i]! >= least && values[i]! < Infinity && (i === 0 || values[i]! > values[i - 1]!);
    if (!isGood) throw new RangeError(`${where}: ${what} must ascend from ${least} on, ${list(values, i)}`);
  }
}
