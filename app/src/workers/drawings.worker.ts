import { examineModel, placedModel, readModel, type ModelPose, type Taken } from '@pebble-hall/core/drawings';
import { mendMesh, type MendedMesh } from '@pebble-hall/core/tracing';
import { handOver, serveJobs } from './serveJobs';
import { storedFile } from './storedArrays';

const examine = async (file: { name: string; bytes: Uint8Array }, taken: Taken) => {
  const seen = examineModel(await readModel(file.name, file.bytes), taken);
  return handOver(seen, [seen.ends, seen.openEnds, seen.triangles]);
};

const jobs = {
  examine: ({ file, taken }: { file: { name: string; bytes: Uint8Array }; taken: Taken }) =>
    examine(file, taken),
  stored: async ({ fileId, taken }: { fileId: string; taken: Taken }) =>
    examine(await storedFile(fileId, 'The drawing under the plan'), taken),
  /** the faces of a drawing as it lies under the plan, mended as far as that is safe */
  room: async ({
    fileId,
    pose,
  }: {
    fileId: string;
    pose: ModelPose;
  }): Promise<MendedMesh & { names: string[] }> => {
    const { name, bytes } = await storedFile(fileId, 'The drawing under the plan');
    const { surfaces } = placedModel(await readModel(name, bytes), pose);
    if (surfaces.length === 0)
      throw new Error('The drawing has lines alone, and no faces that sound could meet.');
    return { ...mendMesh(surfaces), names: surfaces.map((s) => s.name) };
  },
};
export type DrawingJobs = typeof jobs;
serveJobs(jobs);
