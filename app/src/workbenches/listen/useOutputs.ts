import { useEffect, useState } from 'react';
import { notifyProblem } from '../../services/notify';
import { askForDevices, listDevices, type ListedDevice } from '../../ports/rig';
import { sentenceOf } from '../../store';

/** What a chain plays on when no device is chosen for it. */
export const SYSTEM_OUTPUT: ListedDevice = { id: '', name: 'the system’s own output' };

/** Output devices that can be played on. Browsers tell them only once an input was allowed, so there is a way to ask. */
export function useOutputs(): { outputs: ListedDevice[]; ask: () => Promise<void> } {
  const [outputs, setOutputs] = useState<ListedDevice[]>([]);
  useEffect(() => {
    let current = true;
    const read = () =>
      listDevices()
        .then((found) => current && setOutputs(named(found.outputs)))
        .catch(() => current && setOutputs([])); // no access here: the system's own is left
    void read();
    const media = typeof navigator === 'undefined' ? undefined : navigator.mediaDevices;
    media?.addEventListener('devicechange', read);
    return () => {
      current = false;
      media?.removeEventListener('devicechange', read);
    };
  }, []);
  const ask = async () => {
    try {
      setOutputs(named((await askForDevices()).outputs));
    } catch (error) {
      notifyProblem(`Outputs are not told: ${sentenceOf(error)}`);
    }
  };
  return { outputs, ask };
}

/** Those that can be named; 'default' only repeats one of the others. */
const named = (all: ListedDevice[]) => all.filter((d) => d.id !== '' && d.id !== 'default');
