import {
  DAMAGED_SISKIN,
  KNOWN_SISKINS,
  siskinCalibrationText,
  type Incidence,
} from '@pebble-hall/stand-ins/net-loft';
import type { APIRoute } from 'astro';
import { answer, BadRequest, guarded } from '../../../server/answers';

/** The maker's look-up of calibration files, a stand-in: Siskin M1 by serial, for sound from 0 and 90 degrees. */
export const GET: APIRoute = ({ params }) =>
  guarded(() => {
    const asked = params.serial ?? '';
    if (!/^\d{4}$/.test(asked)) {
      throw new BadRequest(
        400,
        `"${asked.slice(0, 20)}" is no serial of a Siskin M1: it has four digits, engraved below the capsule.`,
      );
    }
    const serial = KNOWN_SISKINS.find((s) => s === Number(asked));
    if (serial === undefined)
      throw new BadRequest(
        404,
        `No Siskin M1 with serial ${asked} is known. Look at the microphone again, or load its file.`,
      );
    return answer({
      make: 'Siskin M1',
      serial: asked,
      files: ([0, 90] as Incidence[]).map((incidence) => {
        const text = siskinCalibrationText(serial, incidence);
        const name = `siskin-m1-${serial}-${incidence}-degrees.txt`;
        // this one was cut off in the archive, in the middle of a number
        return { name, text: serial === DAMAGED_SISKIN ? `${text.slice(0, 420)}\t-` : text };
      }),
    });
  });
