import { Checkbox } from '@mantine/core';
import { noFaults, type Faults } from '@pebble-hall/stand-ins/rig';
import { useState } from 'react';
import { practiceFaults, setPracticeFaults } from '../../rig';

const SILENT_OUTPUT = 4;
const REVERSED_OUTPUT = 2;

/** Trouble to practise with: the stand-in rig can be told to misbehave. */
export function PracticeCard() {
  const [faults, setFaults] = useState<Faults>(practiceFaults);
  const set = (next: Partial<Faults>) => {
    const all = { ...practiceFaults(), ...next };
    setPracticeFaults(all);
    setFaults(all);
  };
  const none = JSON.stringify(faults) === JSON.stringify(noFaults());
  return (
    <section className="card" aria-label="Trouble to practise with">
      <h2>
        Trouble to practise with <small>{none ? 'none' : 'on'}</small>
      </h2>
      <Checkbox
        size="xs"
        label="A door slams during the next sweep"
        checked={faults.doorSlam}
        onChange={(e) => set({ doorSlam: e.currentTarget.checked })}
      />
      <Checkbox
        size="xs"
        label={`Output ${SILENT_OUTPUT} carries nothing`}
        checked={faults.silentOutputs.length > 0}
        onChange={(e) => set({ silentOutputs: e.currentTarget.checked ? [SILENT_OUTPUT] : [] })}
      />
      <Checkbox
        size="xs"
        label={`Output ${REVERSED_OUTPUT} has its polarity reversed`}
        checked={faults.reversedOutputs.length > 0}
        onChange={(e) => set({ reversedOutputs: e.currentTarget.checked ? [REVERSED_OUTPUT] : [] })}
      />
      <Checkbox
        size="xs"
        label="The microphone input is far too hot"
        checked={faults.hotInput}
        onChange={(e) => set({ hotInput: e.currentTarget.checked })}
      />
    </section>
  );
}
