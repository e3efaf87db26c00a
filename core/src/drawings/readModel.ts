import { FormatError } from '../formats/index.js';
import { checkedModel, MOST_MODEL_BYTES, type Model } from './model.js';

/** Endings of files with models that are read. */
export const MODEL_ENDINGS = ['obj', 'gltf', 'glb', 'dxf'] as const;

const endingOf = (name: string) => /\.([a-z0-9]+)$/i.exec(name)?.[1]?.toLowerCase() ?? '';

export const isModelName = (name: string): boolean =>
  (MODEL_ENDINGS as readonly string[]).includes(endingOf(name));

/**
 * Reads a model, by the ending of its file's name; each reader is loaded when it is needed.
 * @throws FormatError with the reason, and what to do
 */
export async function readModel(name: string, bytes: Uint8Array): Promise<Model> {
  if (bytes.length > MOST_MODEL_BYTES)
    throw new FormatError(
      `The file has ${Math.round(bytes.length / 1e6)} MB; up to ${MOST_MODEL_BYTES / 1e6} are taken. ` +
        'Save it without furniture and fittings, or reduced.',
    );
  if (bytes.length === 0) throw new FormatError('The file is empty. Save or copy it again.');
  try {
    return await readAs(endingOf(name), bytes);
  } catch (error) {
    if (error instanceof FormatError) throw error;
    // the packages that read these formats trust what they are given: what they stumble over is a broken file
    throw new FormatError(
      'The file is damaged: parts of it do not fit together. Save it again, or copy it again.',
    );
  }
}

async function readAs(ending: string, bytes: Uint8Array): Promise<Model> {
  switch (ending) {
    case 'obj': {
      const { readObj } = await import('./readObj.js');
      return checkedModel(readObj(bytes));
    }
    case 'gltf':
    case 'glb': {
      const { readGltf } = await import('./readGltf.js');
      return checkedModel(await readGltf(bytes));
    }
    case 'dxf': {
      const { readDxf } = await import('./readDxf.js');
      return readDxf(bytes);
    }
    default:
      throw new FormatError('Models are read from OBJ, glTF (GLB) and DXF files.');
  }
}
