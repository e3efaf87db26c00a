import type { MemoryStamp, Project, ProjectArray, Sweep } from '@pebble-hall/core/project';
import { activeMemory, readProcessor, SimulatedRig, takeSweep } from '../rig';

let rig: { key: string; rig: SimulatedRig } | undefined;

/** The rig that the project has chosen. */
export function rigOf({ rig: { pace } }: Project): SimulatedRig {
  if (rig?.key !== pace) {
    void rig?.rig.close();
    rig = { key: pace, rig: new SimulatedRig({ pace }) };
  }
  return rig.rig;
}

/** What the processor holds at this moment. */
export async function memoryStamp(): Promise<MemoryStamp> {
  const { letter, name, checksum, hasFilters } = activeMemory(await readProcessor());
  return { letter, name, checksum, hasFilters };
}

/** Takes one sweep of a loudspeaker at a spot, ready to be stored. */
export async function measureSweep(
  project: Project,
  spotId: string,
  loudspeakerId: string,
  stage: Sweep['stage'],
  signal: AbortSignal,
  onProgress: (share: number) => void,
): Promise<{ sweep: Sweep; array: ProjectArray }> {
  const spot = project.place.spots.find((s) => s.id === spotId)!;
  const loudspeaker = project.place.loudspeakers.find((l) => l.id === loudspeakerId)!;
  const device = rigOf(project);
  device.standMicrophoneAt(spot.position);
  const memory = await memoryStamp();
  const { levelDbfs, sweepS, calibrationId } = project.rig;
  const analysed = await takeSweep(
    device,
    { output: loudspeaker.output, levelDbfs, durationS: sweepS },
    { signal, onProgress },
  );
  const { impulse, arrival, margins, distortionDb, verdict } = analysed;
  const traceId = crypto.randomUUID();
  return {
    sweep: {
      id: crypto.randomUUID(),
      stage,
      spotId,
      loudspeakerId,
      traceId,
      takenAt: Date.now(),
      levelDbfs,
      calibrationId,
      memory,
      verdict,
      margins,
      arrivalS: arrival?.onsetS ?? null,
      distortionDb,
    },
    array: {
      id: traceId,
      kind: 'trace',
      rate: impulse.rate,
      zero: impulse.zero,
      samples: Float32Array.from(impulse.samples),
    },
  };
}
