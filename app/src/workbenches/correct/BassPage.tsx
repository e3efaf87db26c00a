import { Button, Select } from '@mantine/core';
import type { Correction, Crossovers, Project } from '@pebble-hall/core/project';
import type { CrossoverFilter } from '@pebble-hall/core/together';
import { useState } from 'react';
import { formatHz } from '../../parts/chartMath';
import { designWorker } from '../../parts/designs';
import type { ExactFilters } from '../../parts/exactFilters';
import { NumberField } from '../../parts/NumberField';
import { fittedOf } from '../../parts/progress';
import { tell, tellProblem } from '../../parts/tell';
import { sentenceOf } from '../../store';
import { jointGround, offeredCrossovers, type JointReading } from './useJoint';
import type { Edit } from './useCorrection';

interface BassPageProps {
  project: Project;
  correction: Correction;
  mainId: string;
  filters: ExactFilters | null;
  reading: JointReading | null;
  problem: string | null;
  onEdit: Edit;
}

/** Bass management: crossovers of a channel and the subwoofers, and how well both add up over all spots. */
export function BassPage({ project, correction, mainId, filters, reading, problem, onEdit }: BassPageProps) {
  const [work, setWork] = useState(false);
  const main = project.place.loudspeakers.find((l) => l.id === mainId)!;
  const subs = fittedOf(project).filter((l) => l.role === 'subwoofer');
  const own = correction.crossovers[mainId] !== undefined;
  const now = reading?.setting;
  const set = (label: string, high: CrossoverFilter | null, low: CrossoverFilter | null) =>
    onEdit(label, {
      crossovers: {
        ...correction.crossovers,
        [mainId]: { highPass: high, lowPass: correction.crossovers[mainId]?.lowPass ?? null },
        ...Object.fromEntries(
          subs.map((l): [string, Crossovers] => [
            l.id,
            { highPass: correction.crossovers[l.id]?.highPass ?? null, lowPass: low },
          ]),
        ),
      },
    });
  const search = async (among: 'crossover in hand' | 'all') => {
    if (!filters || !now) return;
    setWork(true);
    try {
      const { request } = await jointGround(project, correction, filters, mainId);
      const offered =
        among === 'all'
          ? offeredCrossovers([
              { kind: 'Linkwitz-Riley', order: 4 },
              { kind: 'Butterworth', order: 2 },
              { kind: 'Linkwitz-Riley', order: 8 },
            ])
          : [{ highPass: now.highPass, lowPass: now.lowPass }];
      const best = await designWorker().call((api) => api.bestJoint(request, offered));
      const alignment = { ...correction.alignment };
      const plain = { trimDb: 0, delayMs: 0, inverted: false };
      // a delay that would have to be negative is given to the others instead
      const all = fittedOf(project).filter((l) => l.role !== 'subwoofer');
      for (const l of best.subDelayS >= 0 ? subs : all) {
        const was = alignment[l.id] ?? plain;
        alignment[l.id] = {
          ...was,
          delayMs: Math.round(100 * (was.delayMs + 1000 * Math.abs(best.subDelayS))) / 100,
        };
      }
      if (best.subInverted)
        for (const l of subs) {
          const was = alignment[l.id] ?? plain;
          alignment[l.id] = { ...was, inverted: !was.inverted };
        }
      const crossovers =
        among === 'all'
          ? {
              ...correction.crossovers,
              [mainId]: { highPass: best.highPass, lowPass: null },
              ...Object.fromEntries(subs.map((l) => [l.id, { highPass: null, lowPass: best.lowPass }])),
            }
          : correction.crossovers;
      onEdit(`joint of ${main.name} and the subwoofers`, { alignment, crossovers });
      tell(
        `${main.name} and the subwoofers reach ${Math.round(100 * best.efficiency)} % of a perfect sum with ${(1000 * Math.abs(best.subDelayS)).toFixed(2)} ms more on ${best.subDelayS >= 0 ? 'the subwoofers' : 'all other channels'}${best.subInverted ? ', subwoofers turned' : ''}.`,
      );
    } catch (error) {
      tellProblem(sentenceOf(error));
    } finally {
      setWork(false);
    }
  };
  return (
    <>
      <section className="card" aria-label="Crossover">
        <h2>
          Crossover of {main.name}
          <Button
            size="compact-xs"
            variant="default"
            disabled={Object.keys(correction.crossovers).length === 0}
            onClick={() => onEdit('crossovers as the processor has them', { crossovers: {} })}
          >
            The processor’s own
          </Button>
        </h2>
        {now ? (
          <>
            <CrossoverRow
              name="Channel high-pass"
              value={now.highPass}
              onChange={(high) => set(`high-pass of ${main.name}`, high, now.lowPass)}
            />
            <CrossoverRow
              name="Subwoofers low-pass"
              value={now.lowPass}
              onChange={(low) => set('low-pass of the subwoofers', now.highPass, low)}
            />
          </>
        ) : (
          <span className={problem ? 'attention' : 'quiet'} role={problem ? 'alert' : undefined}>
            {problem ?? 'Reading …'}
          </span>
        )}
        <small className="quiet">
          {own
            ? 'set here; loaded with the filters'
            : 'as the processor had them while the room was measured'}
        </small>
      </section>
      <section className="card" aria-label="Joint">
        <h2>Joint with the subwoofers</h2>
        {reading ? (
          reading.efficiency === null || !reading.band ? (
            <span className="attention">
              There is no band where both are within 10 dB of each other: nothing to join.
            </span>
          ) : (
            <span>
              <b className="mono">{Math.round(100 * reading.efficiency)} %</b> of a perfect in-phase sum (
              {(20 * Math.log10(reading.efficiency)).toFixed(1).replace('-', '\u2212')} dB), shared band{' '}
              {formatHz(reading.band.from)} to {formatHz(reading.band.to)}, mean over the spots.
            </span>
          )
        ) : (
          <span className="quiet">{problem ? '' : 'Follows when the filters are made …'}</span>
        )}
        <div style={{ display: 'flex', gap: 8 }}>
          <Button
            size="compact-sm"
            loading={work}
            disabled={!reading}
            onClick={() => void search('crossover in hand')}
          >
            Find delay and polarity
          </Button>
          <Button
            size="compact-sm"
            variant="default"
            loading={work}
            disabled={!reading}
            onClick={() => void search('all')}
          >
            Crossover too
          </Button>
        </div>
        <small className="quiet">
          Complex sum at every spot, with filters, levels and delays as they are in hand.
        </small>
      </section>
    </>
  );
}

function CrossoverRow({
  name,
  value,
  onChange,
}: {
  name: string;
  value: CrossoverFilter | null;
  onChange: (next: CrossoverFilter | null) => void;
}) {
  const kind = value ? `${value.kind} ${value.order}` : 'none';
  return (
    <div className="row">
      <span style={{ whiteSpace: 'nowrap' }}>{name}</span>
      <Select
        size="xs"
        w={178}
        aria-label={name}
        allowDeselect={false}
        data={[
          { value: 'none', label: 'none' },
          ...(['Linkwitz-Riley', 'Butterworth'] as const).flatMap((k) =>
            [2, 4, 8].map((order) => ({ value: `${k} ${order}`, label: `${k} ${6 * order} dB/oct` })),
          ),
        ]}
        value={kind}
        onChange={(v) => {
          if (!v) return;
          const [k, order] = v.split(/ (?=\d)/);
          onChange(
            v === 'none'
              ? null
              : {
                  kind: k as CrossoverFilter['kind'],
                  order: Number(order),
                  frequency: value?.frequency ?? 80,
                },
          );
        }}
      />
      <NumberField
        label={`${name} frequency`}
        value={value?.frequency ?? 80}
        unit="Hz"
        min={40}
        max={250}
        step={5}
        digits={0}
        width={80}
        disabled={!value}
        onChange={(frequency) => value && onChange({ ...value, frequency })}
      />
    </div>
  );
}
