import type { MemoryLoad, VerifiedStage } from '@pebble-hall/core/project';
import { useEffect } from 'react';
import { useStore } from 'zustand';
import * as memories from '../../services/memoryWork';
import { homeVerdict } from './verify/spotVerdicts';

/** Loading, reading back, recalling and verifying memories of the processor. */
export function useHandOver() {
  const now = useStore(memories.memoryWork);
  useEffect(() => void memories.refreshMemories(), []);
  return { ...now, ...VERBS };
}

const VERBS = {
  load: memories.loadMemory,
  putInPlace: memories.putInPlace,
  takeOut: memories.takeOut,
  resume: memories.resumeLoad,
  abandon: memories.abandonLoad,
  readBackLoad: memories.readBackLoad,
  putBack: memories.restoreSettings,
  recall: memories.recallMemory,
  rename: memories.renameMemory,
  copy: memories.copyMemory,
  verify: (last: MemoryLoad, spotIds: string[], stage: VerifiedStage) =>
    memories.verifyLoad(last, spotIds, stage, homeVerdict),
};
