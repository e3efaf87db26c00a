import { Button } from '@mantine/core';
import { targetOf, familiesOf, variantOf, type Project } from '@pebble-hall/core/project';
import { logGrid } from '@pebble-hall/core/signal';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { formatDb } from '../../parts/chartMath';
import { Frame } from '../../parts/Frame';
import { readLeftAlone } from '../../parts/leftAloneWords';
import { Note } from '../../parts/Note';
import { fittedOf, usableSpots } from '../../parts/progress';
import { ResponseChart, type ChartMark, type Smoothing } from '../../parts/ResponseChart';
import { AlignPage } from './AlignPage';
import { BassPage } from './BassPage';
import { ALL, ChannelChips } from './ChannelChips';
import { FilterPage } from './FilterPage';
import { HowMuchCard } from './HowMuchCard';
import { JointNotes, JointPlot } from './JointPlot';
import { groupBands, groupTarget, groupTraces } from './groupCurves';
import { channelBands, channelTraces, filterTraces } from './levelCurves';
import { PageBar } from './PageBar';
import { GROUP_LOOKS, LOOKS, type Look, type Page, type Shown } from './pages';
import { PredictionCard } from './PredictionCard';
import { MissList } from './MissList';
import { readDesign } from './readDesign';
import { readTime } from './readTime';
import { ShowMenu } from './ShowMenu';
import { SpanCard } from './SpanCard';
import { SubsPage } from './SubsPage';
import { targetHandles } from './targetHandles';
import { TargetCard } from './TargetCard';
import { TimePanel } from './TimePanel';
import { largestMiss } from './tour';
import { useAtHome } from './useAtHome';
import { useBeforeAfter } from './useBeforeAfter';
import { useCorrection } from './useCorrection';
import { useDesigns } from './useDesigns';
import { useExact } from './useExact';
import { guardWords, useGuard } from './useGuard';
import { useJoint } from './useJoint';
import { useSpotLevels } from './useSpotLevels';
import { isStale, VariantsPage } from './VariantsPage';
import { whyAt } from './why';
import { WhyPanel } from './WhyPanel';

const grid = logGrid();

/** What would each channel become, and what is left alone? */
export function CorrectWorkbench() {
  return (
    <Frame path="/correct" title="Correct">
      {(project) => <Correct project={project} />}
    </Frame>
  );
}

function Correct({ project }: { project: Project }) {
  const { correction, edit, change } = useCorrection(project);
  const channels = fittedOf(project).filter((l) => usableSpots(project, l.id).averaged.length > 0);
  const families = familiesOf(project).filter((f) =>
    f.loudspeakerIds.some((id) => channels.some((c) => c.id === id)),
  );
  const [chosen, setChosen] = useState<string | null>(null);
  const group = chosen === ALL ? channels : channelsOf(chosen);
  const channel = channels.find((l) => l.id === chosen) ?? group?.[0] ?? channels[0];
  const variant = variantOf(project);
  const underHand = correction !== variant.correction;
  const seen = (group ?? (channel ? [channel] : [])).map((l) => l.id);
  const { designs, requests, ready, problem } = useDesigns(project, correction, underHand ? seen : null);
  const exact = useExact(project, correction, ready);
  const guard = useGuard(project, correction, exact.filters);
  const [page, setPage] = useState<Page>('Shape');
  const [look, setLook] = useState<Look>('Level');
  const [shown, setShown] = useState<Shown>({
    found: false,
    seatRangeBefore: true,
    seatRangeAfter: false,
    spots: false,
  });
  const [missOver, setMissOver] = useState(4);
  const [againstId, setAgainstId] = useState<string | null>(null);
  const [smoothing, setSmoothing] = useState<Smoothing>(6);
  const [handle, setHandle] = useState<number | null>(null);
  const [pointed, setPointed] = useState<number | null>(null);
  const other = project.variants.find((v) => v.id === againstId && v.id !== variant.id) ?? null;
  const otherDesigns = useDesigns(project, other?.correction ?? null).designs;
  const home = useAtHome(project, requests, page === 'Levels and delays' ? exact.filters : null);
  const full = channel?.role === 'full range' ? channel : channels.find((l) => l.role === 'full range');
  const hasSubs = channels.some((l) => l.role === 'subwoofer');
  const joint = useJoint(
    project,
    correction,
    page === 'Bass' && hasSubs ? exact.filters : null,
    full?.id ?? null,
  );

  function channelsOf(id: string | null) {
    const family = families.find((f) => f.id === id);
    return family && channels.filter((c) => family.loudspeakerIds.includes(c.id));
  }

  const design = channel && designs.get(channel.id);
  const otherDesign = other && channel ? otherDesigns.get(channel.id) : undefined;
  const against = useMemo(
    () => (other && otherDesign ? { name: other.name, design: otherDesign } : null),
    [other, otherDesign],
  );
  const request = channel && requests.find((r) => r.id === channel.id);
  const spotLevels = useSpotLevels(shown.spots ? (request?.spots ?? []) : [], ready);
  const notes = useMemo(() => (design ? readDesign(design, grid, correction) : []), [design, correction]);
  const grouped = useMemo(
    () => group?.map((c) => ({ name: c.name, design: designs.get(c.id)! })).filter((c) => c.design),
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the group follows what is chosen
    [chosen, designs],
  );
  const groupLook = GROUP_LOOKS.includes(look) ? look : 'Level';
  const made = (channel && exact.filters?.exact.get(channel.id)) ?? null;
  const timeLook = !grouped && page !== 'Bass' && look !== 'Level' && look !== 'Filter' ? look : null;
  const overTime = useBeforeAfter(project, channel ?? null, timeLook ? made : null);
  const traces = useMemo(() => {
    if (grouped) return groupTraces(grouped, groupLook, shown);
    if (!design) return [];
    return look === 'Filter'
      ? filterTraces(design, made?.levelDb ?? null, against)
      : channelTraces(design, shown, spotLevels, against);
  }, [grouped, groupLook, design, look, made, against, shown, spotLevels]);
  const bands = useMemo(
    () =>
      grouped
        ? groupLook === 'Level'
          ? groupBands(grouped, shown)
          : []
        : design && look === 'Level'
          ? channelBands(design, shown)
          : [],
    [design, grouped, groupLook, look, shown],
  );
  const single = !grouped && look === 'Level';
  const alone = (design?.leftAlone ?? []).map((l) => {
    const { text, small } = readLeftAlone(l, correction.maxBoostDb, correction.maxCutDb);
    return { fromHz: l.from, toHz: l.to, text: `${text} ${small}` };
  });
  const marks: ChartMark[] = single
    ? notes.flatMap((n, i) => (n.at ? [{ number: i + 1, ...n.at, attention: n.attention }] : []))
    : [];
  // the axis stays still while a hand drags: it depends on what was found, not on what is predicted
  const range = useMemo(() => {
    if (!design) return undefined;
    if (look === 'Filter') return { lowDb: -20, highDb: 15 };
    const inside = [...design.found.averageDb].filter(
      (v, i) => grid[i]! >= design.span.from && grid[i]! <= design.span.to && Number.isFinite(v),
    );
    const top = Math.ceil((Math.max(...inside) + 6) / 5) * 5;
    return { lowDb: top - 45, highDb: top };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the span of a drag must not move the axis
  }, [design?.found.averageDb[200], design?.found.averageDb[100], channel?.id, look, Boolean(grouped)]);
  const misses = useMemo(
    () => new Map([...designs.values()].map((d) => [d.id, largestMiss(d, grid)])),
    [designs],
  );
  const tour = useCallback(
    (step: 1 | -1) => {
      const at = channels.findIndex((c) => c.id === channel?.id);
      setChosen(channels[(at + step + channels.length) % channels.length]?.id ?? null);
    },
    // eslint-disable-next-line react-hooks/exhaustive-deps -- ids tell all
    [channels.map((c) => c.id).join(), channel?.id],
  );
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const typing = (event.target as Element | null)?.closest?.('input, textarea, [contenteditable]');
      if (typing || event.ctrlKey || event.metaKey || event.altKey) return;
      if (event.key === 'n') tour(1);
      else if (event.key === 'p') tour(-1);
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  }, [tour]);
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
  const family = families.find((f) => f.loudspeakerIds.includes(channel.id)) ?? null;
  const ownTarget = family !== null && correction.familyTargets[family.id] !== undefined;
  const target = targetOf(project, correction, channel.id);
  const first =
    request && channels.find((c) => requests.find((r) => r.id === c.id)?.spots[0] === request.spots[0]);
  const spanId = first?.id ?? channel.id;
  /** Where each target stands is kept once a handle is moved, so that it does not shift under the hand. */
  const standing = () =>
    Object.fromEntries(
      [...designs.values()].map((d) => [d.id, correction.targetLevels[d.id] ?? d.targetOffsetDb]),
    );
  const editTarget = (label: string, next: typeof target, done = true) =>
    edit(
      label,
      {
        ...(ownTarget
          ? { familyTargets: { ...correction.familyTargets, [family.id]: next } }
          : { target: next }),
        targetLevels: standing(),
      },
      done,
    );
  const setOwn = (own: boolean) => {
    if (!family) return;
    const { [family.id]: _gone, ...others } = correction.familyTargets;
    edit(own ? `${family.name} with a target of its own` : `${family.name} with the shared target`, {
      familyTargets: own ? { ...others, [family.id]: target } : others,
    });
  };
  const why = design && pointed !== null && !grouped ? whyAt(design, grid, pointed, correction) : null;

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
          <JointPlot
            name={full.name}
            reading={joint.reading}
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
            traces={traces}
            bands={bands}
            target={
              single
                ? (design?.targetDb ?? null)
                : grouped && groupLook === 'Level' && chosen !== ALL
                  ? groupTarget(grouped)
                  : null
            }
            range={range}
            marks={marks}
            stretches={single ? alone : []}
            smoothing={smoothing}
            onSmoothing={setSmoothing}
            onCursor={onCursor}
            tools={
              <ShowMenu
                shown={shown}
                group={Boolean(grouped)}
                onShown={setShown}
                missOver={missOver}
                onMissOver={setMissOver}
              />
            }
            handles={
              single && design
                ? {
                    ...targetHandles(target, design, grid, editTarget),
                    selected: handle,
                    onSelect: setHandle,
                  }
                : null
            }
            span={
              single && design
                ? {
                    ...design.span,
                    onChange: (span, done) =>
                      edit(
                        `span of ${channel.name}`,
                        { spans: { ...correction.spans, [spanId]: span } },
                        done,
                      ),
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
        {(problem ?? exact.problem) ? (
          <p role="alert" className="attention">
            {problem ?? exact.problem}
          </p>
        ) : null}
        {!design && !problem ? <span className="quiet">Reading the sweeps …</span> : null}
        {page === 'Bass' ? (
          <JointNotes
            name={full?.name ?? ''}
            reading={joint.reading}
            aligned={Object.keys(correction.alignment).length > 0}
          />
        ) : grouped ? (
          <MissList misses={misses} channels={group ?? []} over={missOver} onChoose={setChosen} />
        ) : timeLook ? (
          overTime.data &&
          made &&
          readTime(timeLook, overTime.data, grid, made.latencyS).map((text, i) => (
            <Note key={text} number={i + 1}>
              {text}
            </Note>
          ))
        ) : (
          notes.map((n, i) => (
            <Note key={i} number={i + 1} attention={n.attention ?? false} small={n.small}>
              {n.text}
            </Note>
          ))
        )}
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
        <small className={isStale(project, variant) ? 'attention' : 'quiet'} aria-label="Variant in hand">
          {variant.name}
          {isStale(project, variant) ? ': measured anew since' : ''}
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
          <>
            <TargetCard
              target={target}
              family={family && families.length > 1 ? { name: family.name, own: ownTarget } : null}
              rollOffs={design?.rollOffs ?? null}
              reach={design?.reach ?? null}
              selected={handle}
              placed={Object.keys(correction.targetLevels).length > 0}
              onSelect={setHandle}
              onEdit={editTarget}
              onOwn={setOwn}
              onShift={(by) =>
                edit(`target ${formatDb(by)}`, {
                  targetLevels: Object.fromEntries(Object.entries(standing()).map(([id, v]) => [id, v + by])),
                })
              }
              onPlaceAgain={() => edit('target placed again', { targetLevels: {} })}
            />
            <HowMuchCard correction={correction} stored={variant.correction} onEdit={edit} />
            <SpanCard
              stored={variant.correction}
              channel={channel.name}
              family={family && family.loudspeakerIds.length > 1 ? family.name : null}
              span={design?.span ?? null}
              own={correction.spans[spanId] !== undefined}
              onSpan={(span) =>
                edit(`span of ${channel.name}`, { spans: { ...correction.spans, [spanId]: span } })
              }
              onFamily={(span) =>
                edit(`span of ${family!.name}`, {
                  spans: {
                    ...correction.spans,
                    ...Object.fromEntries(family!.loudspeakerIds.map((id) => [id, span])),
                  },
                })
              }
              onFind={() => {
                const { [spanId]: _gone, ...spans } = correction.spans;
                edit(`span of ${channel.name} found again`, { spans });
              }}
            />
            <PredictionCard
              design={design ?? null}
              made={made}
              guard={guardWords(correction.headroomGuard, guard)}
            >
              <Button component="a" href="/hand-over" size="compact-sm" style={{ flexShrink: 0 }}>
                Hand over
              </Button>
            </PredictionCard>
          </>
        ) : null}
        {page === 'Filter' ? (
          <FilterPage
            channel={channel}
            correction={correction}
            exact={made}
            guard={guardWords(correction.headroomGuard, guard)}
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
              reading={joint.reading}
              problem={joint.problem}
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
          <VariantsPage project={project} change={change} against={againstId} onAgainst={setAgainstId} />
        ) : null}
      </div>
    </div>
  );
}
