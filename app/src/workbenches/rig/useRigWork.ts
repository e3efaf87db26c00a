import { noiseSpectrum } from '@pebble-hall/core/measure';
import type { Project } from '@pebble-hall/core/project';
import { useState } from 'react';
import { exclusively } from '../../parts/running';
import { fittedOf } from '../../parts/progress';
import { measureSweep, rigOf } from '../../parts/measuring';
import { tell, tellProblem } from '../../parts/tell';
import type { Change } from '../../parts/useChange';
import { isAbort, recordSilence } from '../../rig';
import { sentenceOf } from '../../store';

/** Channels are checked with a sweep as long as this, whatever the round uses. */
const CHECK_S = 1;
const NOISE_S = 2;

/** Listening to the room and checking channels, one after the other; what is done stays when the rest is cancelled. */
export function useRigWork(project: Project, change: Change) {
  const [progress, setProgress] = useState(0);
  const [playing, setPlaying] = useState<string | null>(null);

  const guarded = async (what: string, run: (signal: AbortSignal) => Promise<void>) => {
    setProgress(0);
    try {
      await exclusively(what, run);
    } catch (error) {
      if (isAbort(error)) tell(`${what}: stopped. What was done so far is kept.`);
      else tellProblem(`${what}: ${sentenceOf(error)}`);
    } finally {
      setPlaying(null);
    }
  };

  const listen = () =>
    guarded('Listening to the room', async (signal) => {
      const device = rigOf(project);
      device.standMicrophoneAt(project.place.spots[0]!.position);
      const silence = await recordSilence(device, NOISE_S, { signal, onProgress: setProgress });
      const { rate } = await device.open();
      const bands = noiseSpectrum(silence, rate);
      await change('noise of the room', (p) => ({
        ...p,
        rig: { ...p.rig, noise: { takenAt: Date.now(), bands } },
      }));
    });

  const check = (ids: string[]) =>
    guarded(ids.length === 1 ? 'Checking a channel' : 'Checking every channel', async (signal) => {
      const home = project.place.spots[0]!.id;
      for (const [i, id] of ids.entries()) {
        setPlaying(id);
        const short = { ...project, rig: { ...project.rig, sweepS: CHECK_S } };
        const { sweep } = await measureSweep(short, home, id, 'as found', signal, (share) =>
          setProgress((i + share) / ids.length),
        );
        const { takenAt, levelDbfs, verdict, margins } = sweep;
        const name = project.place.loudspeakers.find((l) => l.id === id)!.name;
        await change(`check of ${name}`, (p) => ({
          ...p,
          rig: { ...p.rig, checks: { ...p.rig.checks, [id]: { takenAt, levelDbfs, verdict, margins } } },
        }));
      }
    });

  return {
    progress,
    playing,
    listen: () => void listen(),
    checkAll: () => void check(fittedOf(project).map((l) => l.id)),
    checkOne: (id: string) => void check([id]),
  };
}
