import { Button } from '@mantine/core';
import type { ElectronicsBench } from '@pebble-hall/core/project';
import { useState } from 'react';
import { useStore } from 'zustand';
import { NumberField } from '../../../parts/NumberField';
import { findLiveDelay, liveSession } from '../../../services/liveSession';
import { DEVICE_IDS } from '../../../services/liveSettings';
import { notify, notifyProblem } from '../../../services/notify';
import { sentenceOf } from '../../../store';
import { changeBench } from './changeBench';

/** How far the channels may be apart, and the delay that is taken off both alike. */
export function CompareCard({ bench }: { bench: ElectronicsBench }) {
  const isOn = useStore(liveSession, (s) => s.status === 'on');
  const [isSearching, setSearching] = useState(false);
  const find = async () => {
    setSearching(true);
    try {
      const found = await findLiveDelay(DEVICE_IDS[0]);
      if (found) await changeBench('delay of the device', { delayS: found.delayS });
      else notify('Nothing of what is played comes back on channel A: check the wiring, and play louder.');
    } catch (error) {
      notifyProblem(`The delay was not found: ${sentenceOf(error)}`);
    } finally {
      setSearching(false);
    }
  };
  return (
    <section className="card" aria-label="Channel against channel">
      <h2>Channel against channel</h2>
      <div className="row">
        Tolerance
        <NumberField
          label="Tolerance of the level"
          value={bench.toleranceDb}
          unit="dB"
          digits={2}
          min={0.05}
          max={20}
          step={0.1}
          width={84}
          onChange={(toleranceDb) => void changeBench('tolerance of the level', { toleranceDb })}
        />
        <NumberField
          label="Tolerance of the phase"
          value={bench.toleranceDeg}
          unit="°"
          min={0.5}
          max={90}
          step={1}
          width={70}
          onChange={(toleranceDeg) => void changeBench('tolerance of the phase', { toleranceDeg })}
        />
      </div>
      <div className="row">
        Delay of both
        <NumberField
          label="Delay of the device"
          value={1000 * bench.delayS}
          unit="ms"
          digits={3}
          min={-2000}
          max={2000}
          step={0.01}
          width={96}
          onChange={(ms) => void changeBench('delay of the device', { delayS: ms / 1000 })}
        />
      </div>
      <Button
        size="compact-sm"
        variant="default"
        disabled={!isOn}
        loading={isSearching}
        onClick={() => void find()}
      >
        Find the delay
      </Button>
    </section>
  );
}
