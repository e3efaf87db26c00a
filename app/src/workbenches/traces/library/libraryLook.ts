import {
  libraryLook,
  MOST_LOWER_PLOTS,
  plainLook,
  type LibraryLook,
  type LibraryPlot,
} from '@pebble-hall/core/project';
import { useCallback } from 'react';
import { useStore } from 'zustand';
import { createStore } from 'zustand/vanilla';

const KEY = 'pebble-hall-library-look-';

/** How each project's library is looked at in this browser: kept while it is open, and over a reload. */
const looks = createStore<Record<string, LibraryLook>>(() => ({}));

function storedLook(projectId: string): LibraryLook {
  try {
    const stored: unknown = JSON.parse(localStorage.getItem(KEY + projectId) ?? 'null');
    const { error, value } = libraryLook.validate(stored, { presence: 'required' });
    return error || stored === null ? plainLook() : (value as LibraryLook);
  } catch {
    return plainLook();
  }
}

/** How the library is looked at, and how to look at it otherwise. */
export function useLibraryLook(projectId: string): [LibraryLook, (change: Partial<LibraryLook>) => void] {
  const look = useStore(looks, (all) => all[projectId]) ?? firstLook(projectId);
  const change = useCallback(
    (next: Partial<LibraryLook>) => {
      const changed = { ...firstLook(projectId), ...next };
      looks.setState({ [projectId]: changed });
      try {
        localStorage.setItem(KEY + projectId, JSON.stringify(changed));
      } catch {
        // a browser without room for it forgets how things were looked at, nothing else
      }
    },
    [projectId],
  );
  return [look, change];
}

const read = new Map<string, LibraryLook>();
function firstLook(projectId: string): LibraryLook {
  const now = looks.getState()[projectId] ?? read.get(projectId) ?? storedLook(projectId);
  read.set(projectId, now);
  return now;
}

/** The plots below the level with another one in a place; it changes places with what it was, where it is drawn already. */
export function plotsWith(plots: readonly LibraryPlot[], at: number, plot: LibraryPlot): LibraryPlot[] {
  const was = plots[at];
  return plots.map((p, i) => (i === at ? plot : p === plot && was !== undefined ? was : p));
}

/** One more plot below: the first of those that can be drawn and is not yet. */
export const oneMorePlot = (plots: readonly LibraryPlot[], all: readonly LibraryPlot[]): LibraryPlot[] => {
  const next = all.find((p) => !plots.includes(p));
  return next === undefined || plots.length >= MOST_LOWER_PLOTS ? [...plots] : [...plots, next];
};
