import type { ExaminedModel } from '@pebble-hall/core/drawings';
import type { Place, Underlay } from '@pebble-hall/core/project';
import { repository } from '../store';
import { AlikeCache } from './alikeCache';
import { runJob } from './jobs';
import { useDerived } from './useDerived';

/** A drawing by others that lies under the plan, as it looks: where the picture is to be had, or the model as it is taken. */
export type LookOfUnderlay = { kind: 'picture'; url: string } | ({ kind: 'model' } & ExaminedModel);

/** What the look of one depends on; where it lies is not among it. */
type LookKey = { fileId: string } & ({ kind: 'picture' } | { kind: 'model'; unitM: number; up: 'y' | 'z' });

const MOST_LOOKS = 12;
const looks = new AlikeCache<LookKey, LookOfUnderlay>(MOST_LOOKS, async (key) => {
  if (key.kind === 'model') {
    const { fileId, unitM, up } = key;
    return { kind: 'model', ...(await runJob('drawings.stored', { fileId, taken: { unitM, up } })) };
  }
  const file = await repository().enclosed(key.fileId);
  if (!file)
    throw new Error('The picture under the plan has lost its file. Remove it, and lay it under again.');
  return { kind: 'picture', url: urlOf(file) };
});

/** Where the page finds a picture; it stays there as long as the page does. */
export const urlOf = ({ bytes, type }: { bytes: Uint8Array; type: string }): string =>
  URL.createObjectURL(new Blob([Uint8Array.from(bytes)], { type }));

const keyOf = (u: Underlay): LookKey =>
  u.kind === 'picture'
    ? { kind: 'picture', fileId: u.fileId }
    : { kind: 'model', fileId: u.fileId, unitM: u.unitM, up: u.up };

const all = async ({ keys }: { keys: LookKey[] }) =>
  Promise.all(
    keys.map((key) =>
      looks.get(key).then(
        (look) => ({ look, problem: null }),
        (error: unknown) => ({ look: null, problem: error instanceof Error ? error.message : String(error) }),
      ),
    ),
  );

/** How all drawings under a plan look that are shown, by their ids, as soon as each is there; and what is wrong with the rest. */
export function useUnderlays({ underlays }: Pick<Place, 'underlays'>): {
  seen: ReadonlyMap<string, LookOfUnderlay>;
  problems: string[];
} {
  const shown = underlays.filter((u) => u.isShown);
  const { value } = useDerived(shown.length > 0 ? { keys: shown.map(keyOf) } : null, all, {});
  const seen = new Map<string, LookOfUnderlay>();
  const problems: string[] = [];
  if (value)
    shown.forEach((u, i) => {
      const { look, problem } = value[i]!;
      if (look) seen.set(u.id, look);
      else problems.push(`${u.name}: ${problem}`);
    });
  return { seen, problems };
}
