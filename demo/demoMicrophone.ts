import { readCalibrationText } from '@pebble-hall/core/formats';
import type { Project } from '@pebble-hall/core/project';
import { NET_LOFT_SISKIN, siskinCalibrationText } from '@pebble-hall/stand-ins/net-loft';

/** The project with the demo's microphone on input 1, its calibration file in use. */
export function withDemoMicrophone(project: Project): Project {
  const { serial, frequency, levelDb, incidenceDeg, sensitivityDb } = readCalibrationText(
    siskinCalibrationText(NET_LOFT_SISKIN),
  );
  const id = `siskin-m1-${NET_LOFT_SISKIN}`;
  const [microphone] = project.rig.microphones;
  return {
    ...project,
    calibrations: {
      [id]: {
        id,
        name: `Siskin M1 ${NET_LOFT_SISKIN}, at the source`,
        serial,
        frequency,
        levelDb,
        incidenceDeg,
        sensitivityDb,
      },
    },
    rig: {
      ...project.rig,
      microphones: [
        {
          ...microphone!,
          id: 'siskin',
          make: 'Siskin M1',
          serial: String(NET_LOFT_SISKIN),
          calibrationIds: [id],
          calibrationId: id,
        },
      ],
      microphoneId: 'siskin',
    },
  };
}
