import type { Point } from '@pebble-hall/core/geometry';
import type { LevelCalibration, Microphone, Project } from '@pebble-hall/core/project';
import { SIMULATED_RIG_NAME, SimulatedRig, WebAudioRig, type AudioRig } from '../ports/rig';
import type { Knobs } from '../ports/device';
import { projectNow } from '../store';
import { theProcessor } from './theProcessor';

type HasRig = Pick<Project, 'rig'>;

let current: { key: string; rig: AudioRig } | undefined;

/** The rig that the project has chosen. */
export function rigOf({ rig: { kind, pace, device } }: HasRig): AudioRig {
  const key = JSON.stringify([kind, kind === 'simulated' ? pace : device]);
  if (current?.key !== key) {
    void current?.rig.close();
    if (kind === 'web audio' && !device)
      throw new Error('No audio devices are chosen yet. Choose them in Rig, under Connect.');
    current = {
      key,
      rig:
        kind === 'web audio'
          ? new WebAudioRig(device!)
          : new SimulatedRig({
              pace,
              processor: async () => ({
                ...(await theProcessor().activeOutputs()),
                rate: theProcessor().profile.rate,
              }),
              place: () => projectNow().place,
              device: () => onBench(projectNow()),
            }),
    };
  }
  return current.rig;
}

/** Knobs that are being turned, before they are let go. */
let turned: Knobs | null = null;

/** What stands on the bench of the simulated rig. */
const onBench = ({ live: { electronics } }: Pick<Project, 'live'>) => ({
  output: electronics.output,
  inputs: electronics.inputs,
  knobs: turned ?? electronics.knobs,
});

/** Knobs as they stand while a hand turns them; null once they are let go, and the project says how they stand. */
export const turnKnobs = (knobs: Knobs | null): void => void (turned = knobs);

/** Lets go of the devices; the next use opens them again. */
export function closeRig(): void {
  void current?.rig.close();
  current = undefined;
}

export const rigName = ({ rig: { kind, device } }: HasRig): string =>
  kind === 'simulated' ? SIMULATED_RIG_NAME : (device?.inputName ?? 'no interface');

/** The microphone that measures. */
export const microphoneOf = ({ rig }: HasRig): Microphone =>
  rig.microphones.find((m) => m.id === rig.microphoneId) ?? rig.microphones[0]!;

export const INCIDENCE_DEG = { 'at the source': 0, upright: 90, 'on the floor': 0 } as const;

/** Where a microphone stands. */
export interface Stand {
  microphone: Microphone;
  at: Point;
}

/** Tells a rig that models its place where the microphones stand, all at one place or each at its own. */
export function placeMicrophones(rig: AudioRig, project: Project, at: Point | Stand[]): void {
  const stands = Array.isArray(at) ? at : project.rig.microphones.map((microphone) => ({ microphone, at }));
  rig.placeMicrophones?.(
    stands.map(({ microphone: { input, serial, pointing, gainDb }, at: position }) => ({
      input,
      position,
      serial,
      incidenceDeg: INCIDENCE_DEG[pointing],
      gainDb,
    })),
  );
}

/** The newest level calibration of a microphone, and why it no longer holds, if it does not. */
export function levelOf(
  project: HasRig,
  microphone = microphoneOf(project),
): { calibration: LevelCalibration; stale: string | null } | null {
  const calibration = microphone.levels.at(-1);
  if (!calibration) return null;
  const stale =
    calibration.gainDb !== microphone.gainDb
      ? `The gain was ${calibration.gainDb} dB then and is ${microphone.gainDb} dB now: calibrate again.`
      : calibration.rigName !== rigName(project)
        ? `It was taken through ${calibration.rigName}: calibrate again for ${rigName(project)}.`
        : null;
  return { calibration, stale };
}

/**
 * dB to add to what a microphone reads, so that it compares with the one that measures: by the level calibrations of both,
 * or else by their gains, their sensitivities taken as alike.
 */
export function levelOffsetDb(project: HasRig, microphone: Microphone): number {
  const measuring = microphoneOf(project);
  if (microphone.id === measuring.id) return 0;
  const [own, other] = [levelOf(project, microphone), levelOf(project, measuring)];
  if (!own || own.stale || !other || other.stale) return measuring.gainDb - microphone.gainDb;
  const spl = ({ calibration }: typeof own) => calibration.nominalDb - calibration.readDb;
  return spl(own) - spl(other);
}

/** dB to add to a level re full scale for sound pressure level; null while that is not known. */
export function splOffsetDb(project: HasRig): number | null {
  const level = levelOf(project);
  return level && !level.stale ? level.calibration.nominalDb - level.calibration.readDb : null;
}
