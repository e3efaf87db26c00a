import type { ChannelDesign, ExactChannel } from '@pebble-hall/core/correct';
import { formatDb } from '../../../charts/chartMath';
import type { ReactNode } from 'react';

/** What the correction is worth: distance to the target before and after, in the average and where it was not made for. */
export function PredictionCard({
  design,
  made,
  guard,
  children,
}: {
  design: ChannelDesign | null;
  /** the filter as made; null until it is */
  made: ExactChannel | null;
  /** what the headroom guard does, in words */
  guard: string;
  children: ReactNode;
}) {
  'use memo';
  const figures = (d: { before: number; after: number } | null | undefined) =>
    d ? (
      <span className="mono" style={{ whiteSpace: 'nowrap' }}>
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
        <span>To the target</span>
        {figures(design?.distance)}
      </div>
      <div className="row" title="The same at spots that took no part in the design">
        <span>At spots left out</span>
        {figures(design?.distanceLeftOut)}
      </div>
      <div className="row">
        <span title={made ? 'Largest gain of the filter for a steady tone' : undefined}>
          Largest gain{' '}
          <b className="mono">{made ? formatDb(made.headroom.toneDb) : `${boost.toFixed(1)} dB`}</b>
          <small title={`Headroom guard: ${guard}`}>; guard {guard}</small>
        </span>
        {children}
      </div>
    </section>
  );
}
