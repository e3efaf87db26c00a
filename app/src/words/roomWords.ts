import type { StorageRoom } from '../services/storageRoom';
import { sizeWords } from './sizeWords';

/** How much room is left, and how safe what is stored is. */
export const roomWords = ({ usedBytes, mostBytes, isKept }: StorageRoom): string =>
  `${sizeWords(usedBytes)} used, ${sizeWords(Math.max(0, mostBytes - usedBytes))} left in this browser. ` +
  (isKept
    ? 'It keeps them until you delete them.'
    : 'It may clear them when the disk runs short: save project files of what matters.');
