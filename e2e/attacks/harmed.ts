import type { Tally } from './tally';

const NUMBERS = ['1e999', '-1e308', 'NaN', 'Infinity', '-0', '1e-320', '0x10', '9'.repeat(400), ''];
const NAMES = [
  'constructor',
  '__proto__',
  'toString',
  'hasOwnProperty',
  '../x',
  '\u202e',
  '\u0000',
  'a'.repeat(5000),
];

/** One way to break a file. */
export function harmed(tally: Tally, whole: Uint8Array): { bytes: Uint8Array; how: string } {
  const { random, pick } = tally;
  const at = random(whole.length);
  const how = pick([
    'cut off',
    'bytes changed',
    'a part doubled',
    'a part gone',
    'a number changed',
    'a name put in',
    'lines mixed',
  ]);
  const bytes = whole.slice();
  if (how === 'cut off') return { how, bytes: whole.slice(0, at) };
  if (how === 'bytes changed') {
    for (let i = 0; i <= random(12); i++) bytes[random(bytes.length)] = random(256);
    return { how, bytes };
  }
  const end = at + random(Math.min(400, whole.length));
  if (how === 'a part doubled')
    return { how, bytes: Uint8Array.from([...whole.slice(0, end), ...whole.slice(at)]) };
  if (how === 'a part gone')
    return { how, bytes: Uint8Array.from([...whole.slice(0, at), ...whole.slice(end)]) };
  const latin = Buffer.from(whole).toString('latin1');
  const changed =
    how === 'a number changed'
      ? latin.slice(0, at) + latin.slice(at).replace(/-?\d+(\.\d+)?/, pick(NUMBERS))
      : how === 'a name put in'
        ? latin.slice(0, at) + pick(NAMES) + latin.slice(at)
        : latin
            .split('\n')
            .sort(() => random(3) - 1)
            .join('\n');
  return { how, bytes: new Uint8Array(Buffer.from(changed, 'latin1')) };
}

/** What is said of a file that is not taken: for people, short, and not of the inside. */
export const isReason = ({ name, message }: Pick<Error, 'name' | 'message'>): boolean =>
  message.length <= 400 &&
  ['Error', 'FormatError'].includes(name) &&
  !/undefined|is not a function|Cannot read|Maximum call stack/.test(message);
