import { noFaults, type Calibrator, type Faults } from '@pebble-hall/stand-ins/rig';

export { noFaults, type Calibrator, type Faults };

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
}
