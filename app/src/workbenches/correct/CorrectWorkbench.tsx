import {
  familiesOf,
  fittedOf,
  targetOf,
  usableSpots,
  variantOf,
  type Project,
} from '@pebble-hall/core/project';
import { logGrid } from '@pebble-hall/core/signal';
import { useCallback, useMemo, useState } from 'react';
import { ResponseChart, type Smoothing } from '../../charts/ResponseChart';
import { AlignPage } from './levels/LevelsPage';
import { BassPage } from './bass/BassPage';
import { ALL, ChannelChips } from './ChannelChips';
import { changeProject } from '../../services/changeProject';
import { correctionVerbs } from './correctionVerbs';
import { FilterPage } from './filter/FilterPage';
import { CrossoverNotes, CrossoverPlot } from './bass/CrossoverPlot';
import { PageBar } from './PageBar';
import { GROUP_LOOKS, LOOKS, type Look, type Page, type Shown } from './pages';
import { MissList } from './shape/MissList';
import { PlotNotes } from './shape/PlotNotes';
import { readDesign } from './shape/readDesign';
import { ShapeCards } from './shape/ShapeCards';
import { ShowMenu } from './shape/ShowMenu';
import { SubsPage } from './subwoofers/SubsPage';
import { targetHandles } from './shape/targetHandles';
import { TimePanel } from './filter/TimePanel';
import { missOf } from './shape/tour';
import { useAtHome } from './levels/useAtHome';
import { useBeforeAfter } from './filter/useBeforeAfter';
import { useAlike } from '../../services/useDerived';
import { useCorrection } from './useCorrection';
import { useStoredDesigns } from './useDesigns';
import { useExact } from './useExact';
import { atOnceWords, guardWords, useGuard } from './useGuard';
import { NO_SUMS } from '../../services/bassSums';
import { useBassSums, useWithBass } from './bass/useWithBass';
import { useCrossover } from './bass/useCrossover';
import { useSpotLevels } from './shape/useSpotLevels';
import { isStale, VariantsPage } from './variants/VariantsPage';
import { useLevelPlot } from './shape/useLevelPlot';
import { StaleNotice } from './steps/StaleNotice';
import { useTour } from './shape/useTour';
import { whyAt } from './shape/why';
import { WhyPanel } from './shape/WhyPanel';

const grid = logGrid();

/** Channels that have spots to average, and the families that hold any of them. */
function correctable(project: Project) {
  const channels = fittedOf(project).filter((l) => usableSpots(project, l.id).averaged.length > 0);
  const families = familiesOf(project).filter((f) =>
    f.loudspeakerIds.some((id) => channels.some((c) => c.id === id)),
  );
  return { channels, families };
}

/** What would each channel become, and what is left alone? */
export default function CorrectWorkbench({ project }: { project: Project }) {
  const { channels, families } = useMemo(() => correctable(project), [project]);
  const [chosen, setChosen] = useState<string | null>(null);
  const group = chosen === ALL ? channels : channelsOf(chosen);
  const channel = channels.find((l) => l.id === chosen) ?? group?.[0] ?? channels[0];
  const variant = variantOf(project);
  const looked = (group ?? (channel ? [channel] : [])).map((l) => l.id);
  const { correction, edit, designs, requests, ready, problem } = useCorrection(project, looked);
  // filters are made of what is stored: a moving hand would only begin them again and again
  const exact = useExact(project, variant.correction, ready, channels.length);
  const guard = useGuard(project, variant.correction, exact.filters);
  const [page, setPage] = useState<Page>('Shape');
  const [look, setLook] = useState<Look>('Level');
  const [shown, setShown] = useState<Shown>({
    found: false,
    seatRangeBefore: true,
    seatRangeAfter: false,
    spots: false,
    alone: false,
  });
  const [missOver, setMissOver] = useState(4);
  const [againstId, setAgainstId] = useState<string | null>(null);
  const [smoothing, setSmoothing] = useState<Smoothing>(6);
  const [handle, setHandle] = useState<number | null>(null);
  const [pointed, setPointed] = useState<number | null>(null);
  const other = project.variants.find((v) => v.id === againstId && v.id !== variant.id) ?? null;
  const otherDesigns = useStoredDesigns(project, other?.id ?? '', other?.correction ?? null).value;
  const home = useAtHome(project, requests, page === 'Levels and delays' ? exact.filters : null);
  const stale = useMemo(() => isStale(project, variant), [project, variant]);
  const full = channel?.role === 'full range' ? channel : channels.find((l) => l.role === 'full range');
  const hasSubs = channels.some((l) => l.role === 'subwoofer');
  const crossover = useCrossover(
    project,
    correction,
    page === 'Bass' && hasSubs ? exact.filters : null,
    full?.id ?? null,
  );

  function channelsOf(id: string | null) {
    const family = families.find((f) => f.id === id);
    return family && channels.filter((c) => family.loudspeakerIds.includes(c.id));
  }

  // a prediction with its bass is worked out from what is stored: a moving hand sees the channel alone, and is told so
  const bass = useBassSums(project, variant.correction, exact.filters);
  const isHeld = correction !== variant.correction;
  const firstSub = channels.find((l) => l.role === 'subwoofer')?.id ?? null;
  const played = useWithBass(designs, isHeld || shown.alone ? NO_SUMS : bass.sums, firstSub);
  const sends = channel && (bass.sums.has(channel.id) || correction.crossovers[channel.id]?.lowPass);
  const ownDesign = channel && designs.get(channel.id);
  const design = look === 'Level' ? channel && played.get(channel.id) : ownDesign;
  const otherDesign = other && channel ? otherDesigns?.get(channel.id) : undefined;
  const against = useMemo(
    () => (other && otherDesign ? { name: other.name, design: otherDesign } : null),
    [other, otherDesign],
  );
  const request = channel && requests.find((r) => r.id === channel.id);
  const spotLevels = useSpotLevels(shown.spots && design === ownDesign ? (request?.spots ?? []) : []);
  const notes = useMemo(() => (design ? readDesign(design, grid, correction) : []), [design, correction]);
  const chosenGroup = useAlike(group?.map(({ id, name }) => ({ id, name })) ?? null);
  const grouped = useMemo(
    () =>
      chosenGroup?.flatMap(({ id, name }) => {
        const own = (look === 'Filter' ? designs : played).get(id);
        return own ? [{ name, design: own }] : [];
      }),
    [chosenGroup, designs, played, look],
  );
  const groupLook = GROUP_LOOKS.includes(look) ? look : 'Level';
  const made = (channel && exact.filters?.exact.get(channel.id)) ?? null;
  const timeLook = !grouped && page !== 'Bass' && look !== 'Level' && look !== 'Filter' ? look : null;
  const overTime = useBeforeAfter(project, channel ?? null, timeLook ? made : null);
  const plot = useLevelPlot({
    design: design ?? null,
    group: grouped ?? null,
    oneTarget: chosen !== ALL,
    look: grouped ? groupLook : look,
    shown,
    madeDb: made?.levelDb ?? null,
    bass: !sends ? null : design === ownDesign ? 'without its bass' : 'with its bass',
    against,
    spotLevels,
    notes,
    limits: correction,
  });
  const single = !grouped && look === 'Level';
  const misses = useMemo(() => new Map([...played.values()].map((d) => [d.id, missOf(d, grid)])), [played]);
  const family = families.find((f) => channel && f.loudspeakerIds.includes(channel.id)) ?? null;
  const first =
    request && channels.find((c) => requests.find((r) => r.id === c.id)?.spots[0] === request.spots[0]);
  const spanId = first?.id ?? channel?.id ?? '';
  const hand = useAlike({
    channel: { id: channel?.id ?? '', name: channel?.name ?? '' },
    family,
    spanId,
    targetOffsets: Object.fromEntries([...designs.values()].map((d) => [d.id, d.targetOffsetDb])),
  });
  const verbs = useMemo(() => correctionVerbs(hand, edit), [hand, edit]);
  useTour(
    channels.map((c) => c.id),
    channel?.id ?? null,
    setChosen,
  );
  const onCursor = useCallback((i: number | null) => {
    if (i !== null) setPointed(i);
  }, []);

  if (!channel) {
    return (
      <div className="shed">
        <h1>Nothing to correct yet</h1>
        <p>
          A correction rests on sweeps at the home spot and at two more at least. Take them in the{' '}
          <a className="linkish" href="/mic-walk">
            Mic walk
          </a>
          .
        </p>
      </div>
    );
  }

  const groupName = chosen === ALL ? 'All channels' : (families.find((f) => f.id === chosen)?.name ?? '');
  const target = targetOf(project, correction, channel.id);
  const guardText = guardWords(correction.headroomGuard, guard);
  const why = design && pointed !== null && !grouped ? whyAt(design, grid, pointed) : null;

  return (
    <div
      className="work"
      style={{
        gridTemplateColumns: 'minmax(0, 1fr) 272px',
        gridTemplateRows: '32px minmax(0, 1fr) 28px auto',
        height: '100%',
      }}
    >
      <ChannelChips
        channels={channels}
        families={families}
        chosen={chosen}
        channelId={group ? null : channel.id}
        misses={misses}
        missOver={missOver}
        onChoose={setChosen}
      />
      <div className="plot">
        {page === 'Bass' && full ? (
          <CrossoverPlot
            name={full.name}
            reading={crossover.reading}
            smoothing={smoothing}
            onSmoothing={setSmoothing}
          />
        ) : timeLook ? (
          <TimePanel channel={channel} home={project.place.spots[0]!} state={overTime} look={timeLook} />
        ) : (
          <ResponseChart
            label={
              grouped
                ? `${groupName}: ${groupLook === 'Filter' ? 'filters' : 'as left (predicted)'}`
                : `${channel.name}: as found, target and as left (predicted)`
            }
            title={`${grouped ? groupName : channel.name}, ${variant.name}`}
            frequency={grid}
            {...plot}
            // what a filter does is known exactly: nothing is smoothed away
            {...((grouped ? groupLook : look) === 'Level' && { smoothing, onSmoothing: setSmoothing })}
            onCursor={onCursor}
            tools={
              <ShowMenu
                shown={shown}
                group={Boolean(grouped)}
                sendsBass={bass.sums.size > 0}
                onShown={setShown}
                missOver={missOver}
                onMissOver={setMissOver}
              />
            }
            handles={
              single && design
                ? {
                    ...targetHandles(target, design, grid, verbs.setTarget),
                    selected: handle,
                    onSelect: setHandle,
                  }
                : null
            }
            span={
              single && design
                ? {
                    ...(ownDesign ?? design).span,
                    onChange: verbs.setSpan,
                  }
                : null
            }
          />
        )}
      </div>
      <section className="notes" aria-label="What the plot says">
        <h2>
          What the plot says
          <small>key n: next channel</small>
        </h2>
        {(problem ?? exact.problem ?? bass.problem) ? (
          <p role="alert" className="attention">
            {problem ?? exact.problem ?? bass.problem}
          </p>
        ) : null}
        <StaleNotice project={project} correction={variant.correction} onEdit={edit} />
        {!design && !problem ? <span className="quiet">Reading the sweeps …</span> : null}
        {page === 'Bass' ? (
          <CrossoverNotes
            name={full?.name ?? ''}
            reading={crossover.reading}
            aligned={Object.keys(correction.alignment).length > 0}
          />
        ) : grouped ? (
          <MissList misses={misses} channels={group ?? []} over={missOver} onChoose={setChosen} />
        ) : design ? (
          <PlotNotes
            look={look}
            design={design}
            notes={notes}
            made={made}
            overTime={overTime.data}
            miss={misses.get(channel.id)}
            missOver={missOver}
            against={against}
          />
        ) : null}
        {single && design && page !== 'Bass' ? <WhyPanel why={why} /> : null}
      </section>
      <div className="chips" style={{ gridColumn: '1 / 3', gap: 10 }}>
        <PageBar
          page={page}
          look={grouped ? groupLook : look}
          looks={page === 'Bass' ? [] : grouped ? GROUP_LOOKS : LOOKS}
          onPage={setPage}
          onLook={setLook}
        />
        <span style={{ flex: 1 }} />
        <small className={stale ? 'attention' : 'quiet'} aria-label="Variant being edited">
          {variant.name}
          {stale ? ': measured again since' : ''}
          {exact.progress
            ? `, filter ${exact.progress.done + 1} of ${exact.progress.of} …`
            : exact.filters
              ? ', filters made'
              : ''}
        </small>
      </div>
      <div
        className="shore"
        style={{
          gridColumn: '1 / 3',
          gridTemplateColumns:
            page === 'Shape'
              ? 'minmax(0, 1.42fr) minmax(0, 1fr) minmax(0, 0.85fr) minmax(0, 1.2fr)'
              : page === 'Filter'
                ? correction.filter.form === 'fir'
                  ? 'minmax(0, 1.2fr) minmax(0, 1fr) minmax(0, 1.2fr)'
                  : 'minmax(0, 0.95fr) minmax(0, 1.15fr) minmax(0, 1.5fr) minmax(0, 1.1fr)'
                : page === 'Bass'
                  ? 'minmax(0, 1.35fr) minmax(0, 1fr) minmax(0, 1.1fr)'
                  : '1fr 1fr',
        }}
      >
        {page === 'Shape' ? (
          <ShapeCards
            channel={channel}
            family={hand.family}
            families={families.length}
            correction={correction}
            target={target}
            own={{
              target: family !== null && correction.familyTargets[family.id] !== undefined,
              span: correction.spans[spanId] !== undefined,
              level: correction.targetLevels[spanId] !== undefined,
            }}
            design={ownDesign ?? null}
            played={played.get(channel.id) ?? null}
            made={made}
            guard={guardText}
            verbs={verbs}
            edit={edit}
            handle={handle}
            onHandle={setHandle}
          />
        ) : null}
        {page === 'Filter' ? (
          <FilterPage
            channel={channel}
            correction={correction}
            exact={made}
            guard={guardText + atOnceWords(guard)}
            onEdit={edit}
          />
        ) : null}
        {page === 'Levels and delays' ? (
          <AlignPage
            project={project}
            correction={correction}
            reading={home.reading}
            problem={home.problem}
            onEdit={edit}
          />
        ) : null}
        {page === 'Subwoofers' ? <SubsPage project={project} correction={correction} onEdit={edit} /> : null}
        {page === 'Bass' ? (
          full && hasSubs ? (
            <BassPage
              project={project}
              correction={correction}
              mainId={full.id}
              filters={exact.filters}
              reading={crossover.reading}
              problem={crossover.problem}
              onEdit={edit}
            />
          ) : (
            <section className="card" aria-label="Crossover">
              <h2>Bass management</h2>
              <span className="quiet">It needs a full-range channel and a subwoofer, both with sweeps.</span>
            </section>
          )
        ) : null}
        {page === 'Variants' ? (
          <VariantsPage
            project={project}
            change={changeProject}
            against={againstId}
            onAgainst={setAgainstId}
          />
        ) : null}
      </div>
    </div>
  );
}
