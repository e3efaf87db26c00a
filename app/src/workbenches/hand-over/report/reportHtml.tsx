import type { ReactNode } from 'react';
import { renderToStaticMarkup } from 'react-dom/server';
import { trialSentence } from '../../../words/trials';
import type { ChannelDesign, Target } from '@pebble-hall/core/correct';
import { crossoverText, feedText } from '@pebble-hall/core/processing';
import {
  familiesOf,
  variantOf,
  type MemoryLoad,
  type Project,
  designKey,
  roundOf,
  usableSpots,
  loudspeakerById,
  loudspeakerName,
} from '@pebble-hall/core/project';
import { formatDb, formatHz, levelRange, FULL_BAND } from '../../../charts/chartMath';
import type { ChartTrace } from '../../../charts/drawTraces';
import { plotSvg } from '../../../charts/plotSvg';
import { savedResponse } from '../../../charts/savedResponse';
import { smoothLevels } from '@pebble-hall/core/signal';
import { GUARD_NAMES } from '../../../words/guard';
import { memoryWords } from '../../../words/memoryName';
import { readLeftAlone } from '../../../words/leftAlone';
import { LOW_CHANNEL_NAME, lowInputs } from '../memories/lowChannel';
import { PlaceSection } from './PlaceSection';
import { STYLE } from './reportStyle';
import { ReportTable, type Cell } from './ReportTable';
import type { SpotVerdict } from '../verify/spotVerdicts';
import { grid, type Comparison } from '../verify/compareLoad';

export interface ReportParts {
  project: Project;
  load: MemoryLoad;
  comparisons: Comparison[];
  /** every spot that was measured again */
  spots: SpotVerdict[];
  /** channels that send bass, with what the subwoofers make of it */
  withBass: Comparison[];
  /** those of channels that send their bass, with it */
  designs: ChannelDesign[];
  sendsBass: ReadonlySet<string>;
  madeAt: number;
}

const minus = (v: number) => String(v).replace('-', '\u2212');
const date = (ms: number) =>
  new Date(ms).toLocaleString(undefined, { dateStyle: 'long', timeStyle: 'short' });

/** The whole job as one printable page set; figures from the same code as the screens. */
export const reportHtml = (parts: ReportParts): string =>
  `<!doctype html>${renderToStaticMarkup(<Report {...parts} />)}`;

function Report(parts: ReportParts) {
  const { project, load, madeAt } = parts;
  const title = `${project.name}, ${project.place.name}`;
  return (
    <html lang="en">
      <head>
        <meta charSet="utf-8" />
        <title>{`${title}: report`}</title>
        <style>{STYLE}</style>
      </head>
      <body>
        <header>
          <h1>{title}</h1>
          <p>
            Sound system report, {memoryWords(load)}
            {load.variantName ? `, ${load.variantName}` : ''}. Made {date(madeAt)}.
          </p>
        </header>
        <Part title="What was reached">
          <Reached {...parts} />
        </Part>
        <Part title="The place">
          <PlaceSection {...project} />
        </Part>
        <Part title="Rig and calibration">
          <RigTable {...project} />
        </Part>
        <Part title="Method">
          <Method {...parts} />
        </Part>
        <Part title="Before and after">
          <Plots {...parts} />
        </Part>
        <Part title={load.letter ? 'Settings that were loaded' : 'Settings as designed, not loaded'}>
          <Settings {...parts} />
        </Part>
        <Part title="Left alone, and why">
          <LeftAlone {...parts} />
        </Part>
        {project.trials.length > 0 ? (
          <Part title="Listening comparisons">
            <Trials {...project} />
          </Part>
        ) : null}
        <section className="sign">
          <p>Measured and set by</p>
          <div />
          <p>Place and date</p>
          <div />
        </section>
      </body>
    </html>
  );
}

function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section>
      <h2>{title}</h2>
      {children}
    </section>
  );
}

function nameOf(project: Project, id: string): string {
  return loudspeakerName(project.place, id);
}

const verdictOf = ({ difference, reasons }: Comparison): string[] =>
  difference
    ? [
        `${formatDb(difference.worstDb, 2)} at ${formatHz(difference.worstAt)}`,
        difference.agrees ? 'as predicted' : reasons.join('; '),
      ]
    : ['not measured again', ''];

function Reached({ project, load, comparisons, spots, withBass, designs, sendsBass }: ReportParts) {
  const variant = project.variants.find((v) => v.id === load.variantId) ?? variantOf(project);
  const changed = designKey(project, variant.correction) !== load.designKey;
  const rows = comparisons.map((c) => {
    const design = designs.find((d) => d.id === c.id);
    return [
      nameOf(project, c.id),
      `${formatHz(c.span.from)} to ${formatHz(c.span.to)}`,
      design ? `${design.distance.before.toFixed(2)} dB` : '–',
      design ? `${design.distance.after.toFixed(2)} dB${sendsBass.has(c.id) ? ' with its bass' : ''}` : '–',
      design?.distanceLeftOut
        ? `${design.distanceLeftOut.before.toFixed(2)} to ${design.distanceLeftOut.after.toFixed(2)} dB`
        : sendsBass.has(c.id)
          ? 'not known with its bass'
          : 'none taken',
      ...verdictOf(c),
    ];
  });
  const bassRows = withBass
    .filter((c) => c.difference)
    .map((c) => [
      nameOf(project, c.id),
      `${formatHz(c.span.from)} to ${formatHz(c.span.to)}`,
      ...verdictOf(c),
    ]);
  return (
    <>
      <ReportTable
        head={[
          'Channel',
          'Span',
          'Distance to target as found',
          'as left (predicted)',
          'at spots left out',
          'Verified less predicted, most',
          'Verdict',
        ]}
        rows={rows}
      />
      {spots.length > 1 ? (
        <>
          <h3>At every spot that was measured again</h3>
          <ReportTable
            head={['Spot', 'Channels', 'Verified less predicted, most', 'Channel']}
            rows={spots.map((s) => [
              s.name,
              s.measured,
              `${formatDb(s.worst.db, 2)} at ${formatHz(s.worst.at)}`,
              nameOf(project, s.worst.id),
            ])}
          />
        </>
      ) : null}
      {bassRows.length > 0 ? (
        <>
          <h3>With the bass that the subwoofers play for them</h3>
          <ReportTable
            head={['Channel', 'Span', 'Verified less predicted, most', 'Verdict']}
            rows={bassRows}
          />
        </>
      ) : null}
      {changed ? (
        <p>
          The correction or what it rests on has changed since it was loaded: distances and what was left
          alone are of the changed one, plots and settings of what was loaded.
        </p>
      ) : null}
      <p className="small">
        Distance: RMS over the span, 1/6 octave, level matched. Verified: measured again at the home spot with
        the memory active; as predicted where it is within 0.5 dB beyond what noise can explain, 1/6 octave,
        20 dB or more above the noise; a channel of which less than half its span stands so clear is not
        judged.
      </p>
    </>
  );
}

function RigTable({ rig: r, calibrations }: Project) {
  const microphone = r.microphones.find((m) => m.id === r.microphoneId)!;
  const file = microphone.calibrationId ? calibrations[microphone.calibrationId] : null;
  const level = microphone.levels.at(-1);
  const rows: Cell[][] = [
    ['Interface', r.kind === 'simulated' ? 'Burrow 8 (simulated)' : (r.device?.outputName ?? 'not chosen')],
    [
      'Microphone',
      `${microphone.make} ${microphone.serial}, ${microphone.pointing}, input ${microphone.input}`,
    ],
    [
      'Calibration file',
      file
        ? `${file.name}${file.incidenceDeg === null ? '' : `, for ${file.incidenceDeg} degrees`}`
        : 'none: the microphone is not corrected',
    ],
    [
      'Level calibration',
      level ? `${level.nominalDb} dB on ${date(level.takenAt)}` : 'none: levels are relative',
    ],
    ['Time zero', r.timing],
    ['Sweep', `${r.sweepS} s at ${minus(r.levelDbfs)} dBFS`],
  ];
  return <ReportTable head={['What', 'How']} rows={rows} />;
}

function Method({ project, load }: ReportParts) {
  const variant = project.variants.find((v) => v.id === load.variantId) ?? variantOf(project);
  const c = variant.correction;
  const spots = project.place.spots.filter((s) => s.inAverage);
  const round = roundOf(project);
  // the demo's round has no beginning of its own: its first sweep has
  const taken =
    round.startedAt ||
    Math.min(...project.sweeps.filter((w) => w.roundId === round.id).map((w) => w.takenAt), Infinity);
  const rows: Cell[][] = [
    [
      'Round',
      `${round.name}${Number.isFinite(taken) ? `, begun ${date(taken)}` : ''}${round.note ? `: ${round.note}` : ''}`,
    ],
    ['Spots in the average', spots.map((s) => s.name).join(', ')],
    ['Variant', `${variant.name}${variant.note ? `: ${variant.note}` : ''}`],
    [
      'Filter',
      c.filter.form === 'sections'
        ? `up to ${c.filter.sectionCount} sections`
        : `${c.filter.form === 'both' ? 'sections, then ' : ''}FIR, ${c.filter.style} phase`,
    ],
    [
      'Strength',
      `${Math.round(100 * c.strength)} %${c.strengthPoints.length > 0 ? ', against frequency' : ''}`,
    ],
    ['Max boost, max cut', `${c.maxBoostDb} dB, ${c.maxCutDb} dB`],
    ['Target', targetWords(c.target)],
    ...familiesOf(project).flatMap((f) => {
      const own = c.familyTargets[f.id];
      return own ? [[`Target of ${f.name}`, targetWords(own)]] : [];
    }),
    ['Headroom guard', GUARD_NAMES[c.headroomGuard]],
  ];
  return (
    <>
      <p>
        Exponential sweeps, one channel at a time; each spot aligned by its direct sound; power average over
        the spots. Peaks are brought to the target, dips follow a regularised inverse limited by the boost
        limit, by how far spots differ and by excess phase.
      </p>
      <ReportTable head={['Setting', 'Value']} rows={rows} />
    </>
  );
}

/** A target in its numbers. */
const targetWords = ({ handles, lowLiftDb, highTiltDb, lowExtensionHz, highExtensionHz }: Target): string =>
  [
    ...handles.map((h) => `${formatHz(h.frequency)} ${formatDb(h.levelDb)}`),
    lowLiftDb === 0 ? '' : `lows lifted by ${formatDb(lowLiftDb)}`,
    highTiltDb === 0 ? '' : `highs tilted by ${formatDb(highTiltDb)} per octave`,
    lowExtensionHz === null ? '' : `low end extended to ${formatHz(lowExtensionHz)}`,
    highExtensionHz === null ? '' : `high end extended to ${formatHz(highExtensionHz)}`,
  ]
    .filter(Boolean)
    .join('; ');

/** By how much a load changes the trim of a channel, dB. */
function trimChangeDb({ outputs, before }: MemoryLoad, { place: p }: Project, id: string): number {
  const at = (loudspeakerById(p, id)?.output ?? 0) - 1;
  return (outputs?.[at]?.trimDb ?? 0) - (before?.[at]?.trimDb ?? 0);
}

function Plots({ project, load, comparisons, designs }: ReportParts) {
  return comparisons.map((c) => {
    const smooth = (levels: Float64Array) => smoothLevels(grid, levels, 6);
    const design = designs.find((d) => d.id === c.id);
    const traces: ChartTrace[] = [
      { id: 'f', label: 'as found', role: 'reference', colour: 'trace-slate', levels: smooth(c.foundDb) },
      {
        id: 'p',
        label: 'as left (predicted)',
        role: 'predicted',
        colour: 'trace-heather',
        levels: smooth(c.predictedDb),
      },
      ...(c.verifiedDb
        ? [
            {
              id: 'v',
              label: 'as left (verified)',
              role: 'measured' as const,
              colour: 'trace-kelp',
              levels: smooth(c.verifiedDb),
            },
          ]
        : []),
    ];
    const range = levelRange(
      grid,
      traces.map((t) => t.levels),
    );
    const name = nameOf(project, c.id);
    const svg = plotSvg(
      savedResponse(
        `${name} at the home spot`,
        '1/6 octave',
        'dB',
        { ...FULL_BAND, ...range },
        grid,
        traces,
        // the target at the level that trims and headroom guard leave
        design?.targetDb.map((v) => v + trimChangeDb(load, project, c.id)) ?? null,
      ),
    )
      .replaceAll('id="plot"', `id="plot-${c.id}"`)
      .replaceAll('url(#plot)', `url(#plot-${c.id})`);
    return <figure key={c.id} dangerouslySetInnerHTML={{ __html: svg }} />;
  });
}

function Settings({ project, load }: ReportParts) {
  if (!load.outputs) return <p>They were not kept with this load.</p>;
  const rows = Object.keys(load.spans).map((id) => {
    const { name, output } = loudspeakerById(project.place, id)!;
    const o = load.outputs![output - 1]!;
    return [
      output,
      name,
      formatDb(o.trimDb),
      `${o.delayMs.toFixed(2)} ms`,
      o.inverted ? 'inverted' : 'normal',
      crossoverText(o.size === 'small' ? o.highPass : null),
      crossoverText(o.lowPass),
      feedText(o.bassFeed),
      o.sections.length === 0
        ? 'none'
        : o.sections
            .map((s) => `${s.kind} ${formatHz(s.frequency)} ${formatDb(s.gainDb)} Q ${s.q}`)
            .join('; '),
      o.taps === 0 ? 'none' : `${o.taps} taps`,
    ];
  });
  const lowRows = lowInputs(load, project).map((input) => {
    const fed = feedText(load.outputs![input - 1]!.bassFeed);
    return [input, LOW_CHANNEL_NAME, '', '', '', '', '', fed, '', ''];
  });
  return (
    <ReportTable
      head={[
        'Output',
        'Channel',
        'Gain',
        'Delay',
        'Polarity',
        'High-pass',
        'Low-pass',
        'Bass sent',
        'Sections',
        'FIR',
      ]}
      rows={[...rows, ...lowRows]}
    />
  );
}

function LeftAlone({ project, designs, load }: ReportParts) {
  const variant = project.variants.find((v) => v.id === load.variantId) ?? variantOf(project);
  const rows = designs.flatMap((d) =>
    d.leftAlone.map((l) => {
      const { text, small } = readLeftAlone(l, variant.correction.maxBoostDb, variant.correction.maxCutDb);
      return [nameOf(project, d.id), text, small];
    }),
  );
  const spots = usableSpots(project, designs[0]?.id ?? '').averaged.length;
  if (rows.length === 0) return <p>Nothing within the spans had to be left alone.</p>;
  return (
    <>
      <ReportTable head={['Channel', 'What', 'Why']} rows={rows} />
      <p className="small">Judged on the average of {spots} spots, 1/6 octave.</p>
    </>
  );
}

function Trials({ trials }: Project) {
  return (
    <ReportTable
      head={['When', 'What', 'Candidates', 'Result']}
      rows={trials.map((t) => [
        date(t.startedAt),
        `${t.kind}, ${t.material}, ${t.spotName}${t.matched ? ', matched in loudness' : ', not matched'}`,
        t.candidates.map((c) => c.name).join(', '),
        trialSentence(t),
      ])}
    />
  );
}
