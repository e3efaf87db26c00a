import type { Calibration, Project, Sweep } from '../project/index.js';
import { GROUND_PLANE_DB } from '../spots/index.js';
import type { ViewedRef } from './viewDesk.js';
import type { TraceRef } from './traceSource.js';

/** What of a sweep is wanted: its curve, which a floor-and-ear pair makes of two microphones, or its impulse response, the ear's. */
export type TracePart = 'curve' | 'impulse';

type Seen = Pick<Sweep, 'traceId' | 'calibrationId' | 'floor' | 'groundPlane' | 'levelOffsetDb'>;

/** A sweep's trace at the level that compares with the others, seen through the file that it was taken with. */
export function traceRef(
  { traceId, calibrationId, floor, groundPlane, levelOffsetDb }: Seen,
  calibrations: Record<string, Calibration>,
  part: TracePart = 'curve',
): TraceRef {
  return {
    arrayId: part === 'curve' && floor ? floor.joinedId : traceId,
    calibration: calibrationId ? (calibrations[calibrationId] ?? null) : null,
    // the doubled pressure of the floor taken off, another gain made good
    gainDb: levelOffsetDb - (groundPlane ? GROUND_PLANE_DB : 0),
  };
}

/** The same to be looked at in time. */
export const viewedRef = (
  sweep: Sweep,
  { calibrations }: Pick<Project, 'calibrations'>,
  part: TracePart = 'impulse',
): ViewedRef => ({ ...traceRef(sweep, calibrations, part), decayEnd: sweep.decayEnd });
