import type { RadiationView } from '@pebble-hall/core/coverage';
import type { EnclosedFile, OwnModel } from '@pebble-hall/core/project';

/** A model on its way into the project. */
export interface Candidate {
  source:
    | { kind: 'AES69' | 'table' | 'traces'; file: Omit<EnclosedFile, 'id'> }
    | Extract<OwnModel['source'], { kind: 'guess' }>;
  about: string;
  name: string;
  /** null where nobody says it yet */
  sensitivityDb: number | null;
  largestDb: number | null;
  /** what was assumed, each a sentence */
  notes: string[];
  view: RadiationView;
  /** dB that the response of the view on its axis already has in it */
  viewLargestDb: number;
}
