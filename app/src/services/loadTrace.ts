import type { TraceRef } from '@pebble-hall/core/jobs';
import { gainOfDb, type ImpulseResponse } from '@pebble-hall/core/signal';
import { repository } from '../store';

/** A stored response, at the level at which it is to be seen. @throws Error when its samples are lost */
export async function loadTrace({ arrayId, gainDb }: TraceRef): Promise<ImpulseResponse> {
  const array = await repository().array(arrayId);
  if (!array) throw new Error('A sweep has lost its samples; repeat it in the Mic walk.');
  const { samples, rate, zero } = array;
  const gain = gainOfDb(gainDb);
  return { samples: gain === 1 ? samples : samples.map((v) => gain * v), rate, zero };
}
