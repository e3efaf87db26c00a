import { expect, it } from 'vitest';
import { harmed, isReason } from './harmed';
import { SetReader, wholeSet } from './setReader';
import { Tally, times } from './tally';

/** No reader of a set of some kilobytes takes so much memory, MB. */
const MOST_MB = 1000;

it(
  'sets of responses, broken in every way, are read, refused with a reason, or their reader is ended and the next one reads',
  { timeout: 1_200_000 },
  async () => {
    const tally = new Tally('broken sets of responses');
    const whole = await wholeSet();
    const reader = new SetReader();
    expect(await reader.read(whole)).toEqual({ finite: true });
    for (let i = 0; i < times(3000); i++) {
      const { bytes, how } = harmed(tally, whole);
      const answer = await reader.read(bytes);
      const holds =
        answer === null
          ? true
          : 'finite' in answer
            ? answer.finite
            : answer.name === 'FormatError' && isReason(answer);
      tally.attack(`${i}, ${how}`, holds, JSON.stringify(answer));
      if (answer === null) tally.attack(`${i}, a whole one after it`, (await reader.read(whole)) !== null);
      const mb = process.memoryUsage().rss / 1e6;
      if (mb > MOST_MB) tally.attack(`${i}, ${how}, memory`, false, `${Math.round(mb)} MB`);
    }
    await reader.end();
    console.log(`${reader.ended - 1} readers of sets were ended`);
    expect(tally.told()).toEqual([]);
  },
);
