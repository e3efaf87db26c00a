import type { ChannelDesign } from '@pebble-hall/core/correct';
import type { ReactNode } from 'react';

/** What the correction is worth: distance to the target before and after, in the average and where it was not made for. */
export function PredictionCard({ design, children }: { design: ChannelDesign | null; children: ReactNode }) {
  const figures = (d: { before: number; after: number } | null | undefined) =>
    d ? (
      <span className="mono">
        <b>{d.after.toFixed(2)} dB</b>, was {d.before.toFixed(2)}
      </span>
    ) : (
      <span>none taken</span>
    );
  const boost = design ? Math.max(0, ...design.gainDb) : 0;
  return (
    <section className="card" aria-label="As left (predicted)">
      <h2>As left (predicted)</h2>
      <div className="row" title="RMS over the span, 1/6 octave, level matched">
        <span>Distance to target</span>
        {figures(design?.distance)}
      </div>
      <div className="row" title="The same at spots that took no part in the design">
        <span>On spots left out</span>
        {figures(design?.distanceLeftOut)}
      </div>
      <div className="row">
        <span>
          Largest boost <b className="mono">{boost.toFixed(1)} dB</b>
        </span>
        {children}
      </div>
    </section>
  );
}
