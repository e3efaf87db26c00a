import type { User } from './user';

export const CHANNELS = ['Left', 'Right', 'Centre', 'Surround left', 'Surround right', 'Sub 1', 'Sub 2'];

/** Hears the room, checks every channel and takes the suggested level; on the Rig. */
export async function readyToMeasure(user: User): Promise<void> {
  await user.press('Listen to the room');
  await user.sees('noise of the room');
  await user.press('Check every channel');
  await user.until(
    'every channel is judged',
    async () => ((await user.text()).match(/dB above the noise/g) ?? []).length >= 7,
  );
  await user.until('the check is over', async () => !(await user.text()).includes('Checking every channel'));
  const suggestion = await user.find('//button[starts-with(normalize-space(.), "Set ")]');
  await suggestion.click();
  await user.sees(/The level is right: even the weakest place/);
  await user.counts(/loud enough/, 7);
  await user.sees(/ready, \d+ dB/);
}

/** The largest miss of each channel that was measured again, as the table has it once as many are there, dB. */
export async function misses(user: User, channels: number): Promise<number[]> {
  let found: number[] = [];
  await user.until(`the misses of ${channels} channels`, async () => {
    const table = await user.driver.findElement({ css: 'table' }).getText();
    found = [...table.matchAll(/dB ([+−]?[\d.]+) dB/g)].map((m) => Number(m[1]!.replace('−', '-')));
    return found.length === channels;
  });
  return found;
}
