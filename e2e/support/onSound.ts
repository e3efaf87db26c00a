import { it } from 'vitest';
import { soundLostByItself } from './bareSound';

const LISTENED_S = 20;
/** A machine that loses sound oftener than this on an empty page hardly ever takes a whole sweep. */
const MOST_LOST = 8;

/**
 * A test in real time. Where it fails, an empty page without anything of ours tells whether this machine
 * keeps up with sound at all; on one that does not, the test is skipped with what was counted, never passed.
 */
export const onSound = (name: string, run: () => Promise<void>, ms?: number) =>
  it(
    name,
    async ({ skip }) => {
      try {
        await run();
      } catch (error) {
        const lost = await soundLostByItself(LISTENED_S);
        if (lost > MOST_LOST)
          skip(`not judged: an empty page lost sound ${lost} times in ${LISTENED_S} s on this machine`);
        throw error;
      }
    },
    ms,
  );
