import { Button, Checkbox, Popover } from '@mantine/core';
import { useState } from 'react';
import { processorChanged } from '../../../services/processorChanged';
import { notify, notifyProblem } from '../../../services/notify';
import { noFaults, practiceFaults, setPracticeFaults, type Faults } from '../../../ports/rig';
import { theProcessor } from '../../../services/theProcessor';
import { sentenceOf } from '../../../store';

const SILENT_OUTPUT = 4;
const REVERSED_OUTPUT = 2;
const TORN_OUTPUT = 3;
const SWAPPED: [number, number] = [3, 5];

/** Trouble to practise with: the stand-in rig can be told to misbehave. */
export function PracticeButton() {
  const [faults, setFaults] = useState<Faults>(practiceFaults);
  const set = (next: Partial<Faults>) => {
    const all = { ...practiceFaults(), ...next };
    setPracticeFaults(all);
    setFaults(all);
  };
  const { calibrator: _calibrator, unplugged: _unplugged, ownGainDb: _gain, ...trouble } = faults;
  const { calibrator: _c, unplugged: _u, ownGainDb: _g, ...none } = noFaults();
  const isOn = JSON.stringify(trouble) !== JSON.stringify(none);
  const box = (label: string, checked: boolean, next: (on: boolean) => Partial<Faults>) => (
    <Checkbox
      size="xs"
      label={label}
      checked={checked}
      onChange={(e) => set(next(e.currentTarget.checked))}
    />
  );
  return (
    <Popover
      position="bottom-end"
      width={340}
      shadow="sm"
      withArrow
      onOpen={() => setFaults(practiceFaults())}
    >
      <Popover.Target>
        <Button
          size="compact-md"
          variant={isOn ? 'light' : 'default'}
          color={isOn ? 'buoy' : undefined!}
          style={{ flexShrink: 0 }}
        >
          {isOn ? 'Trouble is on' : 'Practise'}
        </Button>
      </Popover.Target>
      <Popover.Dropdown>
        <section aria-label="Trouble to practise with" style={{ display: 'grid', gap: 7, fontSize: 13 }}>
          <b>Trouble to practise with</b>
          {box('A door slams during the next sweep', faults.doorSlam, (on) => ({ doorSlam: on }))}
          {box(
            'Someone knocks the stand after three sweeps; off puts it back',
            faults.nudge !== null,
            (on) => ({
              nudge: on ? { afterTakes: 3, byM: 0.1, at: null } : null,
            }),
          )}
          {box('Hum of the mains in the microphone', faults.hum, (on) => ({ hum: on }))}
          {box('The microphone input is far too hot', faults.hotInput, (on) => ({ hotInput: on }))}
          {box(`Output ${SILENT_OUTPUT} carries nothing`, faults.silentOutputs.length > 0, (on) => ({
            silentOutputs: on ? [SILENT_OUTPUT] : [],
          }))}
          {box(
            `Output ${REVERSED_OUTPUT} has its polarity inverted`,
            faults.reversedOutputs.length > 0,
            (on) => ({
              reversedOutputs: on ? [REVERSED_OUTPUT] : [],
            }),
          )}
          {box(`Outputs ${SWAPPED.join(' and ')} are exchanged`, faults.swappedOutputs !== null, (on) => ({
            swappedOutputs: on ? SWAPPED : null,
          }))}
          {box('Sub 2 hangs on the output of Sub 1', faults.sharedOutput, (on) => ({
            sharedOutput: on,
            ownGainDb: (on ? { 'sub-2': 4 } : {}) as Record<string, number>,
            unplugged: [],
          }))}
          {box(`The loudspeaker on output ${TORN_OUTPUT} buzzes`, faults.tornOutputs.length > 0, (on) => ({
            tornOutputs: on ? [TORN_OUTPUT] : [],
          }))}
          {box('The loopback cable is pulled out', faults.loopbackOut, (on) => ({ loopbackOut: on }))}
          <Button
            size="compact-sm"
            variant="default"
            onClick={() =>
              void theProcessor()
                .capabilities.practice?.leaveOldSettings()
                .then(() => {
                  processorChanged();
                  notify('The processor now holds trims, a delay and a inverted polarity from last year.');
                })
                .catch((error: unknown) => notifyProblem(sentenceOf(error)))
            }
          >
            Leave old settings in the processor
          </Button>
          {isOn ? (
            <Button size="compact-sm" variant="light" onClick={() => set(noFaults())}>
              All is well again
            </Button>
          ) : null}
        </section>
      </Popover.Dropdown>
    </Popover>
  );
}
