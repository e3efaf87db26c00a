import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { handsFree, keepHandsFree, LONGEST_COUNTDOWN_S, prompt } from './prompts';

const none = { countdownS: 0, prompts: 'silent' };
const kept = new Map<string, string>();

beforeEach(() => {
  kept.clear();
  vi.stubGlobal('localStorage', {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => void kept.set(key, value),
  });
});
afterEach(() => vi.unstubAllGlobals());

it('is kept on this machine', () => {
  expect(handsFree()).toEqual(none);
  keepHandsFree({ countdownS: 12, prompts: 'beeps' });
  expect(handsFree()).toEqual({ countdownS: 12, prompts: 'beeps' });
});

it('mends what is not right in what was kept', () => {
  const [key] = (keepHandsFree({ countdownS: 1, prompts: 'spoken' }), [...kept.keys()]);
  const read = (text: string) => (kept.set(key!, text), handsFree());
  expect(read('{"countdownS":1e9,"prompts":"shouted"}')).toEqual({
    ...none,
    countdownS: LONGEST_COUNTDOWN_S,
  });
  expect(read('{"countdownS":-4}')).toEqual(none);
  expect(read('{"countdownS":"soon","prompts":"spoken"}')).toEqual({ ...none, prompts: 'spoken' });
  expect(read('{"countd')).toEqual(none);
});

it('does not stop a round where this machine has no sound', async () => {
  vi.stubGlobal('AudioContext', undefined);
  await expect(prompt('tick', 'beeps')).resolves.toBeUndefined();
  await expect(prompt('hold still', 'silent')).resolves.toBeUndefined();
});

it('beeps as often as the prompt says, and lets go of the output', async () => {
  const gains: number[] = [];
  const close = vi.fn(() => Promise.resolve());
  class Context {
    currentTime = 0;
    destination = {};
    close = close;
    createGain = () => ({
      connect: () => {},
      gain: { value: 1, setTargetAtTime: (value: number) => gains.push(value) },
    });
    createOscillator = () => ({ connect: () => {}, start: () => {}, frequency: { value: 0 } });
  }
  vi.stubGlobal('AudioContext', Context);
  await prompt('done', 'beeps');
  expect(gains.filter((g) => g > 0)).toHaveLength(3);
  expect(gains.at(-1)).toBe(0);
  expect(close).toHaveBeenCalledOnce();
});
