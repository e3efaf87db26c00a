import { Button, Checkbox, SegmentedControl } from '@mantine/core';
import type { BassFeed } from '@pebble-hall/core/output';
import type { Correction, Crossovers, Loudspeaker, Project } from '@pebble-hall/core/project';
import type { CrossoverFilter } from '@pebble-hall/core/together';
import { useState } from 'react';
import { formatDb, formatHz } from '../../parts/chartMath';
import { designWorker } from '../../parts/designs';
import { lowInput, type ExactFilters } from '../../parts/exactFilters';
import { NumberField } from '../../parts/NumberField';
import { fittedOf } from '../../parts/progress';
import { tell, tellProblem } from '../../parts/tell';
import { sentenceOf } from '../../store';
import { CrossoverRow } from './CrossoverRow';
import { withJoint } from './joinChannels';
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

/** What the trade asks of a low-frequency channel: louder than a full-range one in its band by so much. */
const LOW_ABOVE_DB = 10;
const STARTING_LOW: BassFeed = { gainDb: 0, lowPass: { kind: 'Linkwitz-Riley', order: 4, frequency: 120 } };

const SEARCHED: Pick<CrossoverFilter, 'kind' | 'order'>[] = [
  { kind: 'Linkwitz-Riley', order: 4 },
  { kind: 'Butterworth', order: 2 },
  { kind: 'Linkwitz-Riley', order: 8 },
];

/** Bass management: who plays the lows of a channel, how well both add up over all spots, and the low-frequency channel. */
export function BassPage(props: BassPageProps) {
  return (
    <>
      <CrossoverCard {...props} />
      <JointCard {...props} />
      <LowChannelCard {...props} />
    </>
  );
}

const mainOf = ({ project, mainId }: BassPageProps) =>
  project.place.loudspeakers.find((l) => l.id === mainId)!;
const subsOf = (project: Project) => fittedOf(project).filter((l) => l.role === 'subwoofer');
const mainsOf = (project: Project) => fittedOf(project).filter((l) => l.role === 'full range');

function CrossoverCard(props: BassPageProps) {
  const { project, correction, mainId, reading, problem, onEdit } = props;
  const main = mainOf(props);
  const now = reading?.setting;
  const setMany = (label: string, ids: string[], next: Crossovers) =>
    onEdit(label, {
      crossovers: { ...correction.crossovers, ...Object.fromEntries(ids.map((id) => [id, next])) },
    });
  return (
    <section className="card" aria-label="Crossover">
      <h2>
        Crossover of {main.name}
        <span style={{ display: 'flex', gap: 6 }}>
          <Button
            size="compact-xs"
            variant="default"
            disabled={!reading?.sent}
            onClick={() =>
              setMany(
                'one crossover for all full-range channels',
                mainsOf(project).map((l) => l.id),
                { highPass: now!.highPass, lowPass: now!.lowPass },
              )
            }
          >
            For all channels
          </Button>
          <Button
            size="compact-xs"
            variant="default"
            disabled={Object.keys(correction.crossovers).length === 0}
            onClick={() => onEdit('crossovers as the processor has them', { crossovers: {} })}
          >
            The processor’s own
          </Button>
        </span>
      </h2>
      {now ? (
        <>
          <CrossoverRow
            name="Channel high-pass"
            value={now.highPass}
            onChange={(highPass) =>
              setMany(`high-pass of ${main.name}`, [mainId], { highPass, lowPass: now.lowPass })
            }
          />
          <CrossoverRow
            name="Its bass, low-pass"
            value={now.lowPass}
            onChange={(lowPass) =>
              setMany(`low-pass of the bass of ${main.name}`, [mainId], { highPass: now.highPass, lowPass })
            }
          />
          <CrossoverRow
            name="Subwoofers’ own low-pass"
            value={reading.subsOwn}
            onChange={(lowPass) =>
              setMany(
                'low-pass of the subwoofers',
                subsOf(project).map((l) => l.id),
                { highPass: null, lowPass },
              )
            }
          />
        </>
      ) : (
        <span className={problem ? 'attention' : 'quiet'} role={problem ? 'alert' : undefined}>
          {problem ?? 'Reading …'}
        </span>
      )}
      <small className="quiet">
        {reading && !reading.sent
          ? `${main.name} keeps all its bass. With a high-pass, what it gives up goes to the subwoofers.`
          : 'What the channel gives up goes to the subwoofers, in the processor.'}
      </small>
    </section>
  );
}

function JointCard(props: BassPageProps) {
  const { project, correction, mainId, filters, reading, problem, onEdit } = props;
  const [work, setWork] = useState(false);
  const [whole, setWhole] = useState(false);
  const main = mainOf(props);
  const search = async (crossoverToo: boolean) => {
    if (!filters || !reading) return;
    setWork(true);
    try {
      const ids = whole ? mainsOf(project).map((l) => l.id) : [mainId];
      const first = crossoverToo ? opened(correction, subsOf(project)) : correction;
      const grounds = await Promise.all(ids.map((id) => jointGround(project, first, filters, id)));
      const { highPass, lowPass } = reading.setting;
      const offered = crossoverToo
        ? offeredCrossovers(
            SEARCHED,
            ids.flatMap((id) => filters.designs.get(id)?.rollOffs.low?.cornerHz ?? []),
          )
        : [{ highPass, lowPass }];
      const best = await designWorker().call((api) =>
        api.bestJoint(
          grounds.map((g) => g.request),
          offered,
        ),
      );
      const channels = whole ? 'All full-range channels' : main.name;
      onEdit(
        `joint of ${whole ? 'all full-range channels' : main.name} and the subwoofers`,
        withJoint(first, best, {
          mains: mainsOf(project).map((l) => l.id),
          subs: subsOf(project).map((l) => l.id),
          crossed: crossoverToo || whole ? ids : [],
        }),
      );
      tell(
        `${channels} and the subwoofers reach ${Math.round(100 * best.efficiency)} % of a perfect sum with ${(1000 * Math.abs(best.subDelayS)).toFixed(2)} ms more on ${best.subDelayS >= 0 ? 'the subwoofers' : 'all other channels'}${best.subInverted ? ', subwoofers turned' : ''}.`,
      );
    } catch (error) {
      tellProblem(sentenceOf(error));
    } finally {
      setWork(false);
    }
  };
  return (
    <section className="card" aria-label="Joint">
      <h2>
        Joint with the subwoofers
        <SegmentedControl
          size="xs"
          aria-label="Whose joint is looked for"
          data={[
            { value: 'one', label: main.name },
            { value: 'all', label: 'all channels' },
          ]}
          value={whole ? 'all' : 'one'}
          onChange={(v) => setWhole(v === 'all')}
        />
      </h2>
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
        <Button size="compact-sm" loading={work} disabled={!reading} onClick={() => void search(false)}>
          Find delay and polarity
        </Button>
        <Button
          size="compact-sm"
          variant="default"
          loading={work}
          disabled={!reading}
          onClick={() => void search(true)}
        >
          Crossover too
        </Button>
      </div>
      <small className="quiet">
        Complex sum at every spot, with filters, levels and delays as they are in hand
        {reading && !reading.sent ? `, as if ${main.name} played on the subwoofers too` : ''}.
      </small>
    </section>
  );
}

function LowChannelCard(props: BassPageProps) {
  const { project, correction, reading, onEdit } = props;
  const { lowChannel: low } = correction;
  const main = mainOf(props);
  let input: number | null = null;
  let none: string | null = null;
  try {
    input = lowInput(project);
  } catch (error) {
    none = sentenceOf(error);
  }
  const above = reading?.lowAboveDb ?? null;
  return (
    <section className="card" aria-label="Low-frequency channel">
      <h2>
        Low-frequency channel
        <Button
          size="compact-xs"
          variant="default"
          disabled={!low || above === null}
          onClick={() =>
            onEdit(`low-frequency channel ${LOW_ABOVE_DB} dB above ${main.name}`, {
              lowChannel: { ...low!, gainDb: Math.round(10 * (low!.gainDb + LOW_ABOVE_DB - above!)) / 10 },
            })
          }
        >
          {LOW_ABOVE_DB} dB above {main.name}
        </Button>
      </h2>
      <Checkbox
        size="xs"
        label={input === null ? 'no input is free' : `input ${input} plays on the subwoofers alone`}
        disabled={input === null}
        checked={low !== null}
        onChange={(e) =>
          onEdit(e.currentTarget.checked ? 'low-frequency channel' : 'no low-frequency channel', {
            lowChannel: e.currentTarget.checked ? STARTING_LOW : null,
          })
        }
      />
      {low ? (
        <>
          <CrossoverRow
            name="Low-pass"
            label="Low-frequency channel low-pass"
            value={low.lowPass}
            onChange={(lowPass) =>
              onEdit('low-pass of the low-frequency channel', { lowChannel: { ...low, lowPass } })
            }
          />
          <div className="row">
            <span>Gain</span>
            <NumberField
              label="Low-frequency channel gain"
              value={low.gainDb}
              unit="dB"
              min={-40}
              max={20}
              step={0.1}
              width={92}
              onChange={(gainDb) =>
                onEdit(`low-frequency channel ${gainDb} dB`, { lowChannel: { ...low, gainDb } })
              }
            />
          </div>
        </>
      ) : null}
      <small className={none ? 'attention' : 'quiet'}>
        {none ??
          (low && above !== null
            ? `${formatDb(above)} against ${main.name}, 30 to 80 Hz, mean over the spots. What its gain costs all channels in headroom, the guard takes.`
            : 'For sound tracks that carry one; music needs none.')}
      </small>
    </section>
  );
}

/** The correction with the subwoofers' own low-pass taken away: every channel brings one for its bass. */
const opened = (correction: Correction, subs: Loudspeaker[]): Correction => ({
  ...correction,
  crossovers: {
    ...correction.crossovers,
    ...Object.fromEntries(
      subs.map((l): [string, { highPass: CrossoverFilter | null; lowPass: CrossoverFilter | null }] => [
        l.id,
        { highPass: null, lowPass: null },
      ]),
    ),
  },
});
