/** Words that ship as sound, so that the names of channels can be spoken; made by scripts/makeSpokenNames.mjs. */
export const SPOKEN_WORDS = [
  ...[
    'left',
    'right',
    'centre',
    'front',
    'rear',
    'side',
    'surround',
    'height',
    'top',
    'middle',
    'main',
    'mains',
  ],
  ...[
    'fill',
    'delay',
    'sub',
    'flown',
    'mono',
    'channel',
    'output',
    'stage',
    'outer',
    'inner',
    'upper',
    'lower',
  ],
  ...['hold', 'still', 'move', 'on', 'again', 'done'],
  ...Array.from({ length: 24 }, (_, i) => String(i + 1)),
] as const;

const known = new Set<string>(SPOKEN_WORDS);
const alike: Record<string, string> = {
  center: 'centre',
  back: 'rear',
  subwoofer: 'sub',
  l: 'left',
  r: 'right',
};

/** Words to speak for a channel's name; its output's number where a word of the name is not among those that ship. */
export function wordsFor(name: string, output: number): string[] {
  const words = name
    .toLowerCase()
    .split(/[^a-z0-9]+/)
    .filter((word) => word !== '')
    .map((word) => alike[word] ?? word);
  if (words.length > 0 && words.every((word) => known.has(word))) return words;
  return known.has(String(output)) ? ['output', String(output)] : ['output'];
}
