import {
  noFaults,
  ROOM_SOUNDS,
  type Calibrator,
  type Faults,
  type RoomSound,
} from '@pebble-hall/stand-ins/rig';

export { noFaults, ROOM_SOUNDS, type Calibrator, type Faults, type RoomSound };

const KEY = 'pebble-hall.practice';

/** Faults that the stand-ins are told to have, kept with the browser and not with the project: they are of the rig. */
export function practiceFaults(): Faults {
  try {
    return { ...noFaults(), ...(JSON.parse(localStorage.getItem(KEY) ?? '{}') as Partial<Faults>) };
  } catch {
    return noFaults();
  }
}

export function setPracticeFaults(faults: Faults): void {
  localStorage.setItem(KEY, JSON.stringify(faults));
  dispatchEvent(new Event(KEY));
}

/** Is told when they change in this tab, until the returned function is called. */
export function onPracticeFaults(tell: () => void): () => void {
  addEventListener(KEY, tell);
  return () => removeEventListener(KEY, tell);
}
