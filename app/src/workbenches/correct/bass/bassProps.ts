import {
  type Correction,
  type Loudspeaker,
  type Project,
  fittedOf,
  loudspeakerById,
} from '@pebble-hall/core/project';
import type { ExactFilters } from '../../../services/exactFilters';
import type { Edit } from '../useCorrection';
import type { CrossoverState } from './useCrossover';

/** What every card of the Bass page works on: one full-range channel and all subwoofers. */
export interface BassPageProps {
  project: Project;
  correction: Correction;
  mainId: string;
  filters: ExactFilters | null;
  reading: CrossoverState | null;
  problem: string | null;
  onEdit: Edit;
}

export const mainOf = ({ project, mainId }: BassPageProps): Loudspeaker =>
  loudspeakerById(project.place, mainId)!;
export const subsOf = (project: Project): Loudspeaker[] =>
  fittedOf(project).filter((l) => l.role === 'subwoofer');
export const mainsOf = (project: Project): Loudspeaker[] =>
  fittedOf(project).filter((l) => l.role === 'full range');
