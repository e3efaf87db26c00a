import { alikeWithin, type LibraryCurve } from '@pebble-hall/core/traces';
import { useState } from 'react';
import { signedDb } from '../../../charts/chartMath';
import { NumberField } from '../../../parts/NumberField';

/** How alike two traces are within a band. */
export function AlikeCard({
  names,
  curves,
}: {
  names: [string, string];
  curves: [LibraryCurve, LibraryCurve];
}) {
  const [band, setBand] = useState({ from: 60, to: 200 });
  const found = alikeWithin(curves[0], curves[1], band);
  return (
    <section aria-label="How alike" style={{ display: 'flex', flexDirection: 'column', gap: 6 }}>
      <h2>How alike</h2>
      <div className="row">
        From
        <NumberField
          label="Alike from"
          value={band.from}
          unit="Hz"
          digits={0}
          min={20}
          max={band.to / 1.1}
          step={10}
          width={84}
          onChange={(from) => setBand({ ...band, from })}
        />
        to
        <NumberField
          label="Alike to"
          value={band.to}
          unit="Hz"
          digits={0}
          min={band.from * 1.1}
          max={20_000}
          step={10}
          width={84}
          onChange={(to) => setBand({ ...band, to })}
        />
      </div>
      <span>
        {found
          ? `${names[0]} lies ${signedDb(found.meanDb)} dB over ${names[1]}; shapes differ by ${found.rmsDb.toFixed(1)} dB RMS${
              found.rmsDeg === null
                ? ', phases are not known'
                : `, phases by ${Math.round(found.rmsDeg)}° RMS`
            }.`
          : 'They share nothing that is known there.'}
      </span>
    </section>
  );
}
