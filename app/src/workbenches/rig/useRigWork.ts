import { type Project, fittedOf, loudspeakerById } from '@pebble-hall/core/project';
import { useState } from 'react';
import { checkChannel } from '../../services/measuring';
import { microphoneOf, rigOf, placeMicrophones } from '../../services/theRig';
import type { Change } from '../../services/changeProject';
import { readNoise, recordSilence } from '../../services/recordSweep';
import type { Guarded } from './useGuarded';

const NOISE_S = 2;

/** Listening to the room and checking channels, one after the other; what is done stays when the rest is cancelled. */
export function useRigWork(project: Project, change: Change, { run, setProgress }: Guarded) {
  const [playing, setPlaying] = useState<string | null>(null);

  const listen = () =>
    run('Listening to the room', async (signal) => {
      const device = rigOf(project);
      placeMicrophones(device, project, project.place.spots[0]!.position);
      const options = { signal, onProgress: setProgress };
      const silence = await recordSilence(device, microphoneOf(project).input, NOISE_S, options);
      const { rate } = await device.open();
      const noise = await readNoise(silence, rate, signal);
      await change('noise of the room', (p) => ({
        ...p,
        rig: { ...p.rig, noise: { takenAt: Date.now(), ...noise } },
      }));
    });

  const check = (ids: string[]) =>
    run(ids.length === 1 ? 'Checking a channel' : 'Checking every channel', async (signal) => {
      try {
        for (const [i, id] of ids.entries()) {
          setPlaying(id);
          const loudspeaker = loudspeakerById(project.place, id)!;
          const { check: found, array } = await checkChannel(project, loudspeaker, {
            signal,
            onProgress: (share) => setProgress((i + share) / ids.length),
          });
          const kept = await change(
            `check of ${loudspeaker.name}`,
            (p) => ({ ...p, rig: { ...p.rig, checks: { ...p.rig.checks, [id]: found } } }),
            { arrays: [array] },
          );
          if (!kept) return;
        }
      } finally {
        setPlaying(null);
      }
    });

  return {
    playing,
    listen: () => void listen(),
    checkAll: () => void check(fittedOf(project).map((l) => l.id)),
    checkOne: (id: string) => void check([id]),
  };
}
