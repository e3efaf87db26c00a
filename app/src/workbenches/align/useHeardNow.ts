import type { AlignStep, Project } from '@pebble-hall/core/project';
import { useMemo } from 'react';
import { useStore } from 'zustand';
import { isLive } from '../../services/alignSources';
import { liveSession } from '../../services/liveSession';
import { useLiveFrame } from '../../services/useLiveFrame';

/** So often what Live hears is taken as a source, ms: suggestions are looked for anew each time. */
const TAKEN_MS = 1000;
const NEVER_MS = 1e9;

/** What the measurements of the live session hear; null while no session is on, or nothing of a step rests on it. */
export function useHeardNow(project: Project, step: AlignStep) {
  const asks = useMemo(() => isLive(project, step), [project, step]);
  const isOn = useStore(liveSession, (s) => s.status === 'on' && s.subject === 'room');
  const frame = useLiveFrame(asks ? TAKEN_MS : NEVER_MS);
  const measured = frame?.measured;
  return useMemo(() => (asks && isOn ? (measured ?? []) : null), [asks, isOn, measured]);
}
