import { unpackFiles } from '@pebble-hall/core/formats';

/** Names of the files in a zip. */
export const readZipNames = (bytes: Uint8Array): string[] =>
  Object.keys(unpackFiles(bytes, { files: 1000, bytes: 1e8 }));
