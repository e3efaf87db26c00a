// Traces one group of rays; run by the pool in threads of its own.
import { bytesOfText, packFiles } from '@pebble-hall/core/formats';
import { addRays } from '@pebble-hall/core/project';
import { traceGroup, type RoomRun, type Sent } from '@pebble-hall/core/runs';
import { sceneOf, type Scene } from '@pebble-hall/core/tracing';

export interface GroupToTrace {
  run: RoomRun;
  source: number;
  group: number;
  sent: Sent;
}

/** Groups of one run come one after the other. */
let last: { id: string; faces: string; scene: Scene } | undefined;
function sceneFor({ id, faces }: RoomRun): Scene {
  const key = JSON.stringify(faces);
  if (last?.id !== id || last.faces !== key) last = { id, faces: key, scene: sceneOf(faces) };
  return last.scene;
}

/** @returns what the browser keeps, as files of a project hold it, with `told.json` */
export default function trace({ run, source, group, sent }: GroupToTrace): Uint8Array {
  const files: Record<string, Uint8Array> = {};
  const told = addRays(files, traceGroup(run, sceneFor(run), source, group, sent));
  files['told.json'] = bytesOfText(JSON.stringify(told));
  return packFiles(files);
}
