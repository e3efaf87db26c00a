import type { Point } from '@pebble-hall/core/geometry';
import { snapped, type Guide } from '@pebble-hall/core/place';
import { centreLine, chosenPoints, withMoved, type Place, type Project } from '@pebble-hall/core/project';
import { useState } from 'react';
import { projectionOf, type Thing, type View } from '../../drawing';
import { changeProject } from '../../services/changeProject';
import { notify } from '../../services/notify';
import { ownerOf, withCorner } from './corners';

/** A change of the place, undoable. */
export type EditPlace = (label: string, change: (place: Place) => Place) => Promise<boolean>;

export const editPlace: EditPlace = (label, change) =>
  changeProject(label, (p) => ({ ...p, place: change(p.place) }));

/** Within so many units of the drawing a line holds what is dragged. */
const HOLDS = 6;

/** Ids of spots that were measured at: they stay where their sweeps were taken. */
const takenSpots = ({ sweeps }: Project) => new Set(sweeps.map((s) => s.spotId));

/** What is chosen in the plan, and what is under the hand. */
export function usePlan(project: Project, view: View) {
  const [selected, setSelected] = useState<ReadonlySet<string>>(NONE);
  /** the place as it would be if the hand let go now */
  const [draft, setDraft] = useState<Place | null>(null);
  const [guides, setGuides] = useState<Guide[]>([]);
  const { place } = project;

  const select = ({ id, kind }: Thing, adds: boolean) => {
    if (kind === 'corner') return;
    setSelected((now) => {
      if (!adds) return new Set([id]);
      const next = new Set(now);
      if (!next.delete(id)) next.add(id);
      return next;
    });
  };

  /** What of it may be moved, and whether something may not. */
  const movable = (ids: ReadonlySet<string>) => {
    const taken = takenSpots(project);
    const left = new Set([...ids].filter((id) => !taken.has(id)));
    return { ids: left, isHeld: left.size < ids.size };
  };

  const drag = (thing: Thing, from: Point, to: Point, done: boolean) => {
    const { axes, scale } = projectionOf(place.shape, view);
    const chosen = thing.kind !== 'corner' && selected.has(thing.id) ? selected : new Set([thing.id]);
    const { ids, isHeld } = movable(chosen);
    const grid = scale > 60 ? 0.05 : 0.1;
    const settle = (label: string, change: (p: Place) => Place, lines: Guide[]) => {
      setDraft(done ? null : change(place));
      setGuides(done ? [] : lines);
      if (done) void editPlace(label, change);
    };
    if (thing.kind === 'corner') {
      const others = ownerOf(place, thing.id).outline.map((c) => ({ ...c, z: 0 }));
      const { at, guides: lines } = snapped(to, {
        others,
        centre: centreLine(place),
        grid,
        within: HOLDS / scale,
        axes,
      });
      return settle('a corner', (p) => withCorner(p, thing.id, at), lines);
    }
    if (ids.size === 0) {
      if (done) notify('That spot has sweeps, so it stays where they were taken. Add a spot instead.');
      return;
    }
    const own = chosenPoints(place, new Set([thing.id]))[0]!.at;
    const wanted = { x: own.x + to.x - from.x, y: own.y + to.y - from.y, z: own.z + to.z - from.z };
    const rest = new Set(
      [...place.loudspeakers, ...place.seats, ...place.spots].map((t) => t.id).filter((id) => !ids.has(id)),
    );
    const others = chosenPoints(place, rest).map((c) => c.at);
    const { at, guides: lines } = snapped(wanted, {
      others,
      centre: centreLine(place),
      grid,
      within: HOLDS / scale,
      axes,
    });
    const by = { x: at.x - own.x, y: at.y - own.y, z: at.z - own.z };
    settle(
      ids.size === 1 ? 'something moved' : `${ids.size} things moved`,
      (p) => withMoved(p, ids, by),
      lines,
    );
    if (done && isHeld) notify('Spots that have sweeps stayed where they were taken.');
  };

  /** By keys: along the axes that the view shows. */
  const nudge = (right: number, down: number) => {
    const { axes } = projectionOf(place.shape, view);
    const by = { x: 0, y: 0, z: 0, [axes[0]]: right, [axes[1]]: -down };
    const { ids } = movable(selected);
    if (ids.size > 0) void editPlace('moved by keys', (p) => withMoved(p, ids, by));
  };

  return { selected, setSelected, select, drag, nudge, guides, place: draft ?? place };
}

const NONE: ReadonlySet<string> = new Set();
