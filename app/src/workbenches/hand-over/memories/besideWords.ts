import type { SettingChange } from '@pebble-hall/core/processing';

type NameOf = (output: number) => string;
const outputsOf = (changes: SettingChange[]) => [...new Set(changes.map((c) => c.output))];

/** "trim of Left and Sub 1; size, high-pass of Left": which settings changed on which channels. */
export function besideSummary(beside: SettingChange[], nameOf: NameOf): string {
  const byChannels = new Map<string, SettingChange['what'][]>();
  for (const what of new Set(beside.map((c) => c.what))) {
    const names = outputsOf(beside.filter((c) => c.what === what)).map(nameOf);
    const last = names.pop()!;
    const channels = names.length > 0 ? `${names.join(', ')} and ${last}` : last;
    byChannels.set(channels, [...(byChannels.get(channels) ?? []), what]);
  }
  return [...byChannels].map(([channels, what]) => `${what.join(', ')} of ${channels}`).join('; ');
}

/** One line for each channel: every setting as it is and as it was meant to be. */
export const besideLines = (beside: SettingChange[], nameOf: NameOf): string[] =>
  outputsOf(beside).map((output) => {
    const changes = beside.filter((c) => c.output === output);
    return `${nameOf(output)}: ${changes.map((c) => `${c.what} ${c.found} instead of ${c.wanted}`).join(', ')}`;
  });
