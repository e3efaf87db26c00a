import { type Project, type ProjectArray, fittedOf } from '@pebble-hall/core/project';
import { speedOfSound } from '@pebble-hall/core/room';
import type { ImpulseResponse } from '@pebble-hall/core/signal';
import { takeAt } from '../../../services/measuring';
import type { Change } from '../../../services/changeProject';
import { travelBetween } from '../../../services/recordSweep';
import { repository } from '../../../store';
import { placesOf, withDistance } from './distanceList';
import type { Guarded } from '../useGuarded';

/** The microphone stands this far in front of a loudspeaker when it is close to it. */
export const NEAR_M = 0.1;
const SWEEP_S = 1;
/** Close to a loudspeaker it is loud: the sweep is this much softer there. */
const SOFTER_DB = 14;
/** So much of a response is kept; sound travels 30 m in it. */
const KEPT = 8192;

/** Hears all loudspeakers from one place after the other and works out the distances that follow. */
export function useDistanceWork(project: Project, change: Change, { run, setProgress }: Guarded) {
  const hear = (placeIds: string[]) =>
    run('Distances by sound', async (signal) => {
      const fitted = fittedOf(project);
      const speed = speedOfSound(project.place.temperatureC);
      const traces = structuredClone(project.rig.heardTraces);
      let done = 0;
      for (const placeId of placeIds) {
        const near = fitted.find((l) => l.id === placeId);
        const at = near ? inFrontOf(near) : project.place.spots.find((s) => s.id === placeId)!.position;
        const arrays: ProjectArray[] = [];
        const heard: Record<string, string> = {};
        for (const l of fitted) {
          const levelDbfs = l.id === placeId ? project.rig.levelDbfs - SOFTER_DB : project.rig.levelDbfs;
          const { impulse, verdict } = await takeAt(
            { ...project, rig: { ...project.rig, levelDbfs } },
            l,
            at,
            {
              signal,
              durationS: SWEEP_S,
              onProgress: (share) => setProgress((done + share) / (placeIds.length * fitted.length)),
            },
          );
          done++;
          const lost = verdict.reasons.find((r) => r.kind !== 'disturbed' && r.kind !== 'near noise');
          if (lost) continue; // silent or clipped: no distance can come of it
          const id = crypto.randomUUID();
          const { samples, rate, zero } = impulse;
          arrays.push({
            id,
            kind: 'trace',
            rate,
            zero,
            samples: Float32Array.from(samples.subarray(0, KEPT)),
          });
          heard[l.id] = id;
        }
        traces[placeId] = heard;
        const distances = await distancesOf(project, traces, arrays, speed);
        const kept = await change(
          `distances heard from ${placesOf(project).find((p) => p.id === placeId)!.name}`,
          (p) => ({
            ...p,
            rig: {
              ...p.rig,
              heardTraces: { ...p.rig.heardTraces, [placeId]: heard },
              distances: distances.reduce(
                (list, { a, b, metres }) => withDistance(list, a, b, { heardM: metres }),
                p.rig.distances,
              ),
            },
          }),
          { arrays },
        );
        if (!kept) return;
      }
    });
  return { hear: (placeIds: string[]) => void hear(placeIds) };
}

function inFrontOf({ position: { x, y, z }, aimDeg }: Project['place']['loudspeakers'][number]) {
  const angle = (aimDeg * Math.PI) / 180;
  return { x: x + NEAR_M * Math.cos(angle), y: y + NEAR_M * Math.sin(angle), z };
}

/** Every distance that the traces give; heard both ways, the mean of the two. Two subwoofers do not tell theirs. */
async function distancesOf(
  project: Project,
  traces: Project['rig']['heardTraces'],
  fresh: ProjectArray[],
  speed: number,
): Promise<{ a: string; b: string; metres: number }[]> {
  const arrayOf = async (id: string | undefined): Promise<ImpulseResponse | null> =>
    id ? (fresh.find((a) => a.id === id) ?? (await repository().array(id)) ?? null) : null;
  const sums = new Map<string, { a: string; b: string; sum: number; count: number }>();
  for (const l of fittedOf(project)) {
    const near = await arrayOf(traces[l.id]?.[l.id]);
    if (!near) continue;
    for (const [place, heard] of Object.entries(traces)) {
      if (place === l.id) continue;
      // a full-range loudspeaker heard at a subwoofer tells their distance far better than the other way round
      if (l.role === 'subwoofer' && project.place.loudspeakers.some((o) => o.id === place)) continue;
      const far = await arrayOf(heard[l.id]);
      const band =
        project.rig.checks[l.id]?.verdict.band ??
        (l.role === 'subwoofer' ? { from: 30, to: 100 } : { from: 80, to: 16000 });
      const travel = far && (await travelBetween(near, far, band));
      if (travel === null) continue;
      const key = [l.id, place].sort().join(' ');
      const entry = sums.get(key) ?? { a: l.id, b: place, sum: 0, count: 0 };
      // both microphone places lie in front of their loudspeakers, so between two of them the way is measured to that point
      entry.sum += Math.max(0, travel * speed + NEAR_M);
      entry.count++;
      sums.set(key, entry);
    }
  }
  return [...sums.values()].map(({ a, b, sum, count }) => ({ a, b, metres: sum / count }));
}
