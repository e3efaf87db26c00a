import { useStore } from 'zustand';
import * as walking from '../../services/walk';

export type { WalkNow } from '../../services/walk';

/** The walk as it stands, and what can be asked of it. */
export function useWalk() {
  const { now, filtered } = useStore(walking.walk);
  return { now, filtered, ...VERBS };
}

const { beginNow, recallPlain, takeAll, takeOne, takeSpot, takeThese, watchWalk } = walking;
const VERBS = { beginNow, recallPlain, takeAll, takeOne, takeSpot, takeThese, watch: watchWalk };

export type Walk = ReturnType<typeof useWalk>;
