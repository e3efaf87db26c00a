import { NativeSelect } from '@mantine/core';
import { useState } from 'react';
import { useStore } from 'zustand';
import { NumberField } from '../../../parts/NumberField';
import type { MeterSession } from './meterSession';
import { duration, figure, QUANTITIES, quantityOf } from './quantities';

const KEPT = 'pebble-hall.meters';
const START = { tiles: ['AF', 'Aeq', 'CS', 'Cpeak'], leqS: 10 };

interface Kept {
  tiles: string[];
  leqS: number;
}

function kept(): Kept {
  try {
    const found = JSON.parse(localStorage.getItem(KEPT) ?? '{}') as Partial<Kept>;
    const tiles = found.tiles?.length === 4 ? found.tiles.map((id) => quantityOf(id).id) : START.tiles;
    const leqS = Number(found.leqS);
    return { tiles, leqS: leqS >= 1 && leqS <= 3600 ? leqS : START.leqS };
  } catch {
    return START;
  }
}

interface TilesProps {
  session: MeterSession;
  offsetDb: number;
  unit: string;
  large: boolean;
}

/** Several meters side by side, each with a quantity of its own. */
export function MeterTiles({ session, offsetDb, unit, large }: TilesProps) {
  const [{ tiles, leqS }, setKept] = useState(kept);
  useStore(session.store, (s) => s.heard);
  const keep = (next: Kept) => {
    localStorage.setItem(KEPT, JSON.stringify(next));
    setKept(next);
  };
  const { meter } = session;
  return (
    <div className={large ? 'meters large' : 'meters'}>
      {tiles.map((id, i) => {
        const quantity = quantityOf(id);
        const value = meter ? quantity.read(meter, leqS) + offsetDb : NaN;
        return (
          <section key={i} className="meter" aria-label={`Meter ${i + 1}`}>
            <NativeSelect
              size="xs"
              aria-label={`Quantity of meter ${i + 1}`}
              data={QUANTITIES.map((q) => ({ value: q.id, label: `${q.symbol}  (${q.words})` }))}
              value={id}
              onChange={(e) =>
                keep({ leqS, tiles: tiles.map((t, k) => (k === i ? e.currentTarget.value : t)) })
              }
            />
            <output className="mono figure">{figure(value)}</output>
            <span
              className="quiet"
              style={{ display: 'flex', justifyContent: 'space-between', alignItems: 'center', gap: 6 }}
            >
              <span>{unit}</span>
              {id.endsWith('eq') ? (
                <NumberField
                  label={`Time of meter ${i + 1}`}
                  value={leqS}
                  unit="s"
                  digits={0}
                  min={1}
                  max={3600}
                  step={1}
                  width={74}
                  onChange={(value) => keep({ tiles, leqS: Math.round(value) })}
                />
              ) : null}
              {/(max|min|peak)$/.test(id) ? (
                <span>of {meter ? duration(Math.round(meter.sinceResetS)) : '0 s'}</span>
              ) : null}
            </span>
          </section>
        );
      })}
    </div>
  );
}
