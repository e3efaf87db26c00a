import type { AllPassSection, CrossoverFilter, Section } from '../path/index.js';
import type { FilterChoice, Span, StrengthPoint, Target } from '../correct/index.js';
import type { BassFeed, GuardedSignals, SubSetting } from '../processing/index.js';

/** Trim and delay of a channel on top of what the processor did, as set or taken over. */
export interface Alignment {
  trimDb: number;
  delayMs: number;
  inverted: boolean;
}

/** Crossovers of a channel in place of those that the processor had; null for none. */
export interface Crossovers {
  highPass: CrossoverFilter | null;
  /** of a full-range channel: of its bass on the way to the subwoofers; of a subwoofer: its own */
  lowPass: CrossoverFilter | null;
}

/** What is worked out from all that was measured, and set in one press. In the order in which they are best taken. */
export const STEPS = ['subs', 'levels', 'crossover'] as const;
export type Step = (typeof STEPS)[number];

/** Signals that may not clip: none, tones and programme-like ones, or squares as well. */
export const GUARDS = ['off', 'programme', 'full scale'] as const satisfies ('off' | GuardedSignals)[];
export type Guard = (typeof GUARDS)[number];

/** What each step rested on when it was taken, as text that changes with it; null where it was not taken, or set by hand. */
export type StepKeys = Record<Step, string | null>;

export interface Correction {
  /** of all families that have none of their own */
  target: Target;
  /** by family id */
  familyTargets: Record<string, Target>;
  strength: number;
  strengthPoints: StrengthPoint[];
  maxBoostDb: number;
  maxCutDb: number;
  /** per loudspeaker; absent where the span is found from its own band */
  spans: Record<string, Span>;
  /** per loudspeaker, dB added to the shape of the target; absent where the target places itself */
  targetLevels: Record<string, number>;
  filter: FilterChoice;
  /** per loudspeaker: sections by hand; absent where they are fitted */
  sections: Record<string, Section[]>;
  /** per loudspeaker; absent where level and delay stay as the processor had them */
  alignment: Record<string, Alignment>;
  /** per subwoofer, when they work together; empty when they do not */
  subs: Record<string, SubSetting>;
  /** per loudspeaker; absent where the processor's own stay */
  crossovers: Record<string, Crossovers>;
  /** per loudspeaker: what turns its phase so that it adds up with others; absent where nothing does */
  allPasses: Record<string, AllPassSection[]>;
  /** how the subwoofers alone play the low-frequency channel; null where there is none */
  lowChannel: BassFeed | null;
  /** for which signals all channels are lowered so that nothing goes beyond full scale */
  headroomGuard: Guard;
  /** what the steps that were taken rested on */
  madeFrom: StepKeys;
}

/** A correction with a name. Any number stand beside each other. */
export interface Variant {
  id: string;
  name: string;
  note: string;
  madeAt: number;
  correction: Correction;
  /** what had been measured when it was last looked at: round, and a key that changes with its sweeps */
  restsOn: { roundId: string; key: string } | null;
}
