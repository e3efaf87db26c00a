import type { EnclosedFile } from '@pebble-hall/core/project';
import type { ImpulseResponse } from '@pebble-hall/core/signal';
import { PebbleDatabase } from '../store/database';

let database: PebbleDatabase | undefined;

/** Reads a stored response in a worker, by its id. @throws Error when its samples are lost */
export async function storedImpulse(arrayId: string): Promise<ImpulseResponse> {
  database ??= new PebbleDatabase();
  const array = await database.arrays.get(arrayId);
  if (!array) throw new Error('A sweep has lost its samples; repeat it in the Mic walk.');
  const { samples, rate, zero } = array;
  return { samples, rate, zero };
}

/** Reads a file that is enclosed in a project, by its id. @param what it is, for whom it is missing @throws Error when it is lost */
export async function storedFile(fileId: string, what: string): Promise<EnclosedFile> {
  database ??= new PebbleDatabase();
  const file = await database.enclosed.get(fileId);
  if (!file) throw new Error(`${what} has lost its file. Remove it, and bring it in again.`);
  return file;
}
