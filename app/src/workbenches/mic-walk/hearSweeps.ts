import type { Sweep } from '@pebble-hall/core/project';
import { hearTrace } from '../../services/channelSounds';
import { exclusively } from '../../services/running';
import { notifyProblem } from '../../services/notify';
import { isAbort } from '../../ports/abort';
import { repository, sentenceOf } from '../../store';

/** Plays what the room made of a click, one sweep after the other. */
export async function hearSweeps(sweeps: Sweep[]): Promise<void> {
  try {
    await exclusively('Playing a response', async (signal) => {
      for (const sweep of sweeps) {
        const array = await repository().array(sweep.traceId);
        if (!array) throw new Error('A sweep has lost its samples; repeat it.');
        if (!signal.aborted) await hearTrace(array, signal);
      }
    });
  } catch (error) {
    if (!isAbort(error)) notifyProblem(sentenceOf(error));
  }
}
