import { sizeWords } from './sizeWords';

interface Room {
  usedBytes: number;
  mostBytes: number;
  isKept: boolean;
}

/** How much room is left, and how safe what is stored is. */
export const roomWords = ({ usedBytes, mostBytes, isKept }: Room): string =>
  `${sizeWords(usedBytes)} used, ${sizeWords(Math.max(0, mostBytes - usedBytes))} left in this browser. ` +
  (isKept
    ? 'It keeps them until you delete them.'
    : 'It may clear them when the disk runs short: save project files of what matters.');
