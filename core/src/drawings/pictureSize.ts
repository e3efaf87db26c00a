import { imageSize } from 'image-size';
import { FormatError } from '../formats/index.js';

/** More pixels would take more memory than a page has: four bytes each. */
export const MOST_PIXELS = 40e6;
/** Bytes of a file with a picture. */
export const MOST_PICTURE_BYTES = 30e6;

const TYPES = { png: 'image/png', jpg: 'image/jpeg', svg: 'image/svg+xml' } as const;
export type PictureType = (typeof TYPES)[keyof typeof TYPES];

/** Endings of files with pictures that are laid under a plan. */
export const PICTURE_ENDINGS = ['png', 'jpg', 'jpeg', 'svg'] as const;

export const isPictureName = (name: string): boolean =>
  (PICTURE_ENDINGS as readonly string[]).includes(name.split('.').at(-1)?.toLowerCase() ?? '');

/**
 * What a picture is, read from the head of its file: nothing is unpacked.
 * @returns its width and height as it is shown, in pixels
 * @throws FormatError when it is none of PNG, JPEG and SVG, damaged, or too large
 */
export function pictureSize(bytes: Uint8Array): { type: PictureType; width: number; height: number } {
  if (bytes.length > MOST_PICTURE_BYTES)
    throw new FormatError(
      `The picture has ${Math.round(bytes.length / 1e6)} MB; up to ${MOST_PICTURE_BYTES / 1e6} are taken. Save it as JPEG, or smaller.`,
    );
  let found: ReturnType<typeof imageSize>;
  try {
    found = imageSize(bytes);
  } catch {
    throw new FormatError(
      'The file is no picture that is read here, or is cut off. Save it as PNG, JPEG or SVG.',
    );
  }
  const { type, orientation = 1 } = found;
  if (!type || !(type in TYPES))
    throw new FormatError(
      `Pictures are read from PNG, JPEG and SVG, not from ${(type ?? 'this').toUpperCase()}.`,
    );
  // cameras store a picture that was held upright lying on its side
  const [width, height] = orientation >= 5 ? [found.height, found.width] : [found.width, found.height];
  if (!(width > 0 && height > 0))
    throw new FormatError('The picture does not say how large it is. Save it as PNG or JPEG.');
  if (type !== 'svg' && width * height > MOST_PIXELS)
    throw new FormatError(
      `The picture has ${Math.round((width * height) / 1e6)} megapixels (${width} × ${height}); up to ${MOST_PIXELS / 1e6} are taken. ` +
        'Save it smaller: 6,000 pixels along a hall of 60 m still show a centimetre each.',
    );
  return { type: TYPES[type as keyof typeof TYPES], width, height };
}
