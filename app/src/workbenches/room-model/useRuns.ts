import type { Project } from '@pebble-hall/core/project';
import type { RoomRun } from '@pebble-hall/core/runs';
import { useState } from 'react';
import { useStore } from 'zustand';
import type { RunAsked } from '../../services/jobs';
import type { RunState } from '../../services/runQueue';
import { roomRuns } from '../../services/roomRuns';
import { isIndex, isText, useKept } from '../../services/useKept';

export interface Runs {
  all: readonly RoomRun[];
  states: Record<string, RunState>;
  /** the one that is looked at; null where there is none */
  shown: RoomRun | null;
  /** another one beside it */
  beside: RoomRun | null;
  setShown: (id: string) => void;
  setBeside: (id: string) => void;
}

/** Runs of the project, and which of them are looked at. */
export function useRuns(project: Project): Runs {
  const states = useStore(roomRuns().states);
  const { roomRuns: all } = project;
  const [shownId, setShown] = useKept(`room-model run ${project.id}`, '', isText);
  const [besideId, setBeside] = useKept(`room-model beside ${project.id}`, '', isText);
  const shown = all.find((r) => r.id === shownId) ?? all.at(-1) ?? null;
  const beside = all.find((r) => r.id === besideId && r.id !== shown?.id) ?? null;
  return { all, states, shown, beside, setShown, setBeside };
}

/** With fewer groups there are no errors. */
const LEAST_GROUPS = 4;

/** What of a run is read: all when it stands still; while it goes on each time that what is there has doubled. */
export function askedOf(run: RoomRun | null, state: RunState | undefined): RunAsked | null {
  const there = state?.groups.length ?? 0;
  const counts = !state?.isUnderWay ? there : there < LEAST_GROUPS ? 0 : 2 ** Math.floor(Math.log2(there));
  return run && state && counts >= LEAST_GROUPS ? { run, groups: state.groups.slice(0, counts) } : null;
}

/** Of the shown run and of the one beside it what is read, and the receiver that is looked at. */
export function useReceiver({ shown, beside, states }: Runs) {
  const [at, setReceiver] = useKept('room-model receiver', 0, isIndex);
  const names = shown?.receivers.map((r) => r.name) ?? [];
  const last = Math.max(0, names.length - 1);
  const index = Math.min(at, last);
  // runs may be heard at other places: by their names
  const besideIndex = beside?.receivers.findIndex((r) => r.name === names[index]) ?? -1;
  return {
    asked: askedOf(shown, shown ? states[shown.id] : undefined),
    askedBeside: besideIndex < 0 ? null : askedOf(beside, beside ? states[beside.id] : undefined),
    names,
    index,
    besideIndex,
    setReceiver,
    step: (by: number) => setReceiver(Math.max(0, Math.min(last, index + by))),
  };
}

/** What was read of a run before, while more of its rays are read; never of another run. */
export function useHeld<T>(value: T | null, { shown }: Runs): T | null {
  const [held, setHeld] = useState<{ runId: string; value: T } | null>(null);
  if (value !== null && shown && (held?.value !== value || held.runId !== shown.id))
    setHeld({ runId: shown.id, value });
  return value ?? (held && held.runId === shown?.id ? held.value : null);
}
