import type { FilterChoice, Target } from '../correct/index.js';

/** What one candidate of a blind trial was. */
export interface TrialCandidate {
  /** 'as found', or the id of a variant */
  source: string;
  name: string;
}

/** A blind comparison as it went. */
export interface BlindTrial {
  id: string;
  kind: 'preference' | 'same or different';
  startedAt: number;
  spotName: string;
  material: string;
  candidates: TrialCandidate[];
  /** candidate chosen in each turn (preference), or whether the answer was right (1) or not (0) */
  answers: number[];
  matched: boolean;
}

/** Output, channels and correction to listen through, under a name. */
export interface ListeningChain {
  id: string;
  name: string;
  /** 'as found', or the id of a variant */
  source: string;
  /** loudspeakers that play left and right; equal for one */
  leftId: string;
  rightId: string;
  /** share of the correction, 0 to 1 */
  strength: number;
  style: FilterChoice['style'];
  trimDb: number;
  /** where it sounds */
  through: 'room' | 'output' | 'headphones';
  /** the headphones that it is for; null otherwise */
  headphonesId: string | null;
  /** the output device that it plays on; '' for the one that the system chooses */
  outputId: string;
  outputName: string;
}

/** Headphones as an output: their response on an ear, and what they shall sound like. */
export interface Headphones {
  id: string;
  name: string;
  frequency: number[];
  levelDb: number[];
  targetName: string;
  target: Target;
  strength: number;
}
