import { Modal } from '@mantine/core';
import { isModelName, isPictureName, pictureSize } from '@pebble-hall/core/drawings';
import type { Place } from '@pebble-hall/core/project';
import { useMemo } from 'react';
import type { OpenedFile } from './layUnder';
import { ModelStep } from './ModelStep';
import { PictureStep } from './PictureStep';

interface LayUnderDialogProps {
  file: OpenedFile;
  place: Place;
  /** with the id of what was laid; null when nothing was */
  onClose: (id: string | null) => void;
}

/** A picture or a model on its way under the plan: what it is, how large it is, and what becomes of it. */
export function LayUnderDialog({ file, place, onClose }: LayUnderDialogProps) {
  const picture = useMemo(() => sizeOf(file), [file]);
  return (
    <Modal opened onClose={() => onClose(null)} title={`Lay ${file.name} under the plan`} size={900} centered>
      {isModelName(file.name) ? (
        <ModelStep file={file} place={place} onDone={onClose} />
      ) : 'problem' in picture ? (
        <p role="alert">{picture.problem} Nothing was changed.</p>
      ) : (
        <PictureStep file={{ ...file, type: picture.type }} size={picture} place={place} onDone={onClose} />
      )}
    </Modal>
  );
}

function sizeOf({ name, bytes }: OpenedFile): ReturnType<typeof pictureSize> | { problem: string } {
  try {
    if (!isPictureName(name) && !isModelName(name))
      throw new Error('Pictures are read from PNG, JPEG and SVG, models from OBJ, glTF (GLB) and DXF.');
    return isModelName(name) ? { problem: '' } : pictureSize(bytes);
  } catch (error) {
    return { problem: error instanceof Error ? error.message : String(error) };
  }
}
