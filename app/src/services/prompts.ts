import { speakWords } from './channelSounds';

/** How the round speaks to somebody who is away from the screen. */
export type Prompts = 'silent' | 'beeps' | 'spoken';

export interface HandsFree {
  /** seconds between "move on" and the first sweep of a stop; 0 begins at once */
  countdownS: number;
  prompts: Prompts;
}

const KEY = 'pebble-hall.hands-free';
export const LONGEST_COUNTDOWN_S = 120;

/** As it was set on this machine: it belongs to who walks, not to the project. */
export function handsFree(): HandsFree {
  const none: HandsFree = { countdownS: 0, prompts: 'silent' };
  try {
    const kept = { ...none, ...(JSON.parse(localStorage.getItem(KEY) ?? '{}') as Partial<HandsFree>) };
    const countdownS = Math.round(Math.min(LONGEST_COUNTDOWN_S, Math.max(0, Number(kept.countdownS) || 0)));
    return { countdownS, prompts: ['beeps', 'spoken'].includes(kept.prompts) ? kept.prompts : 'silent' };
  } catch {
    return none;
  }
}

export const keepHandsFree = (next: HandsFree): void => localStorage.setItem(KEY, JSON.stringify(next));

/** What there is to say, in words that ship as sound, and as beeps: frequency and how many. */
const SAID = {
  'hold still': { words: ['hold', 'still'], hz: 880, beeps: 1 },
  'move on': { words: ['move', 'on'], hz: 587, beeps: 2 },
  again: { words: ['again'], hz: 440, beeps: 1 },
  done: { words: ['done'], hz: 587, beeps: 3 },
  tick: { words: [], hz: 1320, beeps: 1 },
} as const;
export type Prompt = keyof typeof SAID;

const BEEP_S = 0.12;

/** Says something through this computer's output; it never fails: a round does not stop for a loudspeaker. */
export async function prompt(what: Prompt, how: Prompts, signal?: AbortSignal): Promise<void> {
  if (how === 'silent' || signal?.aborted) return;
  const { words, hz, beeps } = SAID[what];
  try {
    if (how === 'spoken' && words.length > 0) await speakWords([...words], signal);
    else if (how === 'beeps' || words.length === 0) await beep(hz, beeps);
  } catch {
    // no sound on this machine: the screen says the same
  }
}

async function beep(hz: number, times: number): Promise<void> {
  const context = new AudioContext();
  try {
    const gain = context.createGain();
    gain.connect(context.destination);
    const tone = context.createOscillator();
    tone.frequency.value = hz;
    tone.connect(gain);
    const from = context.currentTime + 0.02;
    gain.gain.value = 0;
    for (let i = 0; i < times; i++) {
      gain.gain.setTargetAtTime(0.12, from + 2 * i * BEEP_S, 0.008);
      gain.gain.setTargetAtTime(0, from + (2 * i + 1) * BEEP_S, 0.012);
    }
    tone.start();
    await new Promise((resolve) => setTimeout(resolve, 1000 * (2 * times + 1) * BEEP_S));
  } finally {
    await context.close();
  }
}
