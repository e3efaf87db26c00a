import { alikeWithin, type LibraryCurve } from '@pebble-hall/core/traces';
import { signedDb } from '../../../charts/chartMath';
import { BandFields } from '../../../parts/BandFields';

/** How alike two traces are within a band. */
export function AlikeCard({
  names,
  curves,
  band,
  onBand,
}: {
  names: [string, string];
  curves: [LibraryCurve, LibraryCurve];
  /** which is marked on the plots too */
  band: { from: number; to: number };
  onBand: (band: { from: number; to: number }) => void;
}) {
  const found = alikeWithin(curves[0], curves[1], band);
  return (
    <section aria-label="How alike" style={{ display: 'flex', flexDirection: 'column', gap: 6 }}>
      <h2>How alike</h2>
      <div className="row">
        From
        <BandFields
          names={['Alike from', 'Alike to']}
          band={band}
          min={20}
          step={10}
          least={1.1}
          onChange={onBand}
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
