import { Button } from '@mantine/core';
import type { Span, SpanEdge } from '@pebble-hall/core/correct';
import { formatDb, formatHz } from '../../../charts/chartMath';
import { NumberField } from '../../../parts/NumberField';

interface SpanCardProps {
  channel: string;
  span: Span | null;
  /** whether it was set by hand */
  own: boolean;
  /** where it ends within the band that the channel plays */
  edges: SpanEdge[];
  /** whether the target was placed by hand */
  placed: boolean;
  /** the family, when it has other members */
  family: string | null;
  onSpan: (span: Span, end: keyof Span) => void;
  onFamily: (span: Span) => void;
  onFind: () => void;
  onPlaceTarget: () => void;
}

/** What is told as a step at the end of a span, dB. */
const STEP_DB = 1;

/** Where the correction acts on this channel; nothing outside is touched. */
export function SpanCard(props: SpanCardProps) {
  'use memo';
  const { channel, span, own, edges, placed, family, onSpan, onFamily, onFind, onPlaceTarget } = props;
  if (!span) return <section className="card" aria-label="Span" />;
  return (
    <section className="card" aria-label="Span">
      <h2>
        Span <small>of {channel}</small>
      </h2>
      <div className="row" style={{ gap: 6 }}>
        <NumberField
          label="Span start"
          value={span.from}
          unit="Hz"
          min={20}
          max={span.to / 2}
          step={5}
          digits={0}
          width={88}
          onChange={(from) => onSpan({ ...span, from }, 'from')}
        />
        to
        <NumberField
          label="Span end"
          value={span.to}
          unit="Hz"
          min={span.from * 2}
          max={20000}
          step={100}
          digits={0}
          width={104}
          onChange={(to) => onSpan({ ...span, to }, 'to')}
        />
      </div>
      <div className="row">
        <span>{own ? 'set by hand' : 'found from its own band'}</span>
        <Button size="compact-xs" variant="default" disabled={!own} onClick={onFind}>
          Find it
        </Button>
      </div>
      {edges
        .filter((edge) => Math.abs(edge.stepDb) > STEP_DB)
        .map((edge) => (
          <div
            className="attention"
            key={edge.side}
            role="status"
            aria-label="Step at the end of the span"
            style={{ display: 'grid', gap: 4, justifyItems: 'start', fontSize: 13 }}
          >
            Step of {formatDb(edge.stepDb)} {edge.side === 'high' ? 'above' : 'below'} {formatHz(edge.at)}
            {placed ? (
              <Button
                size="compact-xs"
                variant="default"
                title="At the level that leaves no step"
                onClick={onPlaceTarget}
              >
                Place the target
              </Button>
            ) : null}
          </div>
        ))}
      {family ? (
        <div className="row">
          <Button size="compact-xs" variant="default" onClick={() => onFamily(span)}>
            The same for all {family}
          </Button>
        </div>
      ) : null}
    </section>
  );
}
