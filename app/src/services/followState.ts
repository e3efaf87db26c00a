/** What somebody away from the screen is told of a round. */
export interface FollowState {
  round: string;
  phase: 'idle' | 'counting' | 'sweeping';
  /** the spot at hand, and where it is */
  spotId: string;
  spot: string;
  where: string;
  channel: string | null;
  leftS: number;
  done: number;
  total: number;
  share: number;
  spots: { id: string; name: string; state: 'taken' | 'trouble' | 'now' | 'empty' }[];
  /** what was wrong with the last sweep, if anything */
  trouble: string | null;
}

/** What somebody away from the screen can ask for. */
export type FollowCommand =
  { do: 'take' } | { do: 'take all' } | { do: 'begin' } | { do: 'stop' } | { do: 'choose'; spotId: string };

/** The word that can be read from the last row. */
export function headlineOf({ phase, leftS, total, done }: FollowState): string {
  if (phase === 'counting') return leftS > 3 ? 'Move on' : 'Hold still';
  if (phase === 'sweeping') return 'Hold still';
  return total > 0 && done >= total ? 'Done' : 'Ready';
}
