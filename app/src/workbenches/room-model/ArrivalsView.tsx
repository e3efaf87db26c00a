import { Button, NativeSelect, Switch } from '@mantine/core';
import { distanceBetween, type Point } from '@pebble-hall/core/geometry';
import { roomFacets } from '@pebble-hall/core/place';
import { facetOrder } from '@pebble-hall/core/room';
import type { Project } from '@pebble-hall/core/project';
import type { Arrival } from '@pebble-hall/core/tracing';
import { useMemo, useState } from 'react';
import { lengthText, PlaceDrawing, projectionOf } from '../../drawing';
import { Note } from '../../parts/Note';
import { useKeys } from '../../parts/useKeys';
import { heardAt } from '../../services/modelledChannels';
import { useJob } from '../../services/useJob';
import { isOneOf, useKept } from '../../services/useKept';
import { arrivalSentence, directionWords, lateSentence, treatedSentence } from '../../words/arrivalWords';
import { Halves } from './Halves';
import { ArrivalGlobe } from './ArrivalGlobe';
import { ArrivalStems } from './ArrivalStems';
import { levelOf } from './arrivalLevel';
import { RoomInThree } from './RoomInThree';
import type { SceneWay } from './RoomScene';
import { SEEN_FROM, SeenFromControl, type SeenFrom } from './SeenAndPaint';

/** Ways are followed so long after the direct sound, seconds. */
const LENGTH_S = 0.2;
/** Speech takes an arrival after this for an echo, if it is loud enough (Haas 1951). */
const LATE_S = 0.05;
const ORDERS = ['1', '2', '3', '4', '5'];
/** A surface that is treated swallows so much at least, in every octave. */
const TREATED = 0.7;
/** What a face swallows from 500 Hz to 2 kHz. */
const swallowed = ({ absorption }: { absorption: readonly number[] }) =>
  (absorption[3]! + absorption[4]! + absorption[5]!) / 3;
const [MARGIN, CAPTION] = [22, 40];

/** What arrives at a place, when and where from: each way of sound as from mirrors, with its path in the plan. */
export function ArrivalsView({ project }: { project: Project }) {
  const { place } = project;
  const { shape, temperatureC, relativeHumidityPercent, lengthUnit } = place;
  const faces = useMemo(() => roomFacets(place), [place]);
  const heard = useMemo(() => heardAt({ place }), [place]);
  const sources = useMemo(() => sourcesOf(project), [project]);
  const [sourceAt, setSource] = useState(0);
  const [heardIndex, setHeard] = useState(0);
  const most = facetOrder(faces.length);
  const [asked, setOrder] = useState(3);
  const order = Math.min(asked, most);
  const [at, setAt] = useState(0);
  const [seen, setSeen] = useKept<SeenFrom>('room-model seen from', SEEN_FROM[0], isOneOf(SEEN_FROM));
  const [showsAll, setShowsAll] = useState(false);
  const source = sources[Math.min(sourceAt, sources.length - 1)]!;
  const receiver = heard[Math.min(heardIndex, heard.length - 1)];
  const request = useMemo(
    () =>
      receiver
        ? {
            faces: faces.map(({ corners, absorption, scattering }) => ({ corners, absorption, scattering })),
            from: source.position,
            receiver: { position: receiver.position, lateral: { x: 0, y: 1, z: 0 } },
            mirrored: order,
            air: { temperatureC, relativeHumidityPercent },
            lengthS: LENGTH_S,
          }
        : null,
    [faces, source, receiver, order, temperatureC, relativeHumidityPercent],
  );
  const { value, problem } = useJob('coverage.arrivals', request);
  const nameOf = (face: number) => faces[face]!.name;
  const all = useMemo(() => value ?? [], [value]);
  const [askedShown, setShown] = useState('all');
  const onlyOf = (a: Arrival) =>
    askedShown === 'all' ||
    (askedShown.startsWith('met ')
      ? a.faces.length === Number(askedShown.slice(4))
      : a.faces.some((f) => nameOf(f) === askedShown));
  const only = all.filter(onlyOf);
  // what nothing is left of is not asked for any more
  const arrivals = only.length > 0 ? only : all;
  const shownOf = only.length > 0 ? askedShown : 'all';
  const chosen = Math.min(at, Math.max(0, arrivals.length - 1));
  const step = (by: number) => setAt(Math.max(0, Math.min(arrivals.length - 1, chosen + by)));
  useKeys({ n: () => step(1), b: () => step(-1) });
  const { width, height } = useMemo(() => projectionOf(shape, 'above'), [shape]);
  const now = arrivals[chosen];
  const direct = all[0];
  const ways = useMemo(() => {
    if (!receiver) return [];
    const wayOf = ({ points }: Arrival) => [source.position, ...points, receiver.position];
    return arrivals.flatMap((a, i): SceneWay[] =>
      i === chosen
        ? [{ points: wayOf(a), isChosen: true }]
        : showsAll
          ? [{ points: wayOf(a), isChosen: false }]
          : [],
    );
  }, [arrivals, chosen, showsAll, source, receiver]);
  const others = ways.filter((w) => !w.isChosen);
  const weakest = now?.faces.reduce<number | null>(
    (best, f) => (best === null || swallowed(faces[f]!) < swallowed(faces[best]!) ? f : best),
    null,
  );
  const treatedRequest = useMemo(
    () =>
      request && weakest !== null && weakest !== undefined
        ? {
            ...request,
            faces: request.faces.map((f, i) =>
              faces[i]!.name === faces[weakest]!.name
                ? { ...f, absorption: f.absorption.map((a) => Math.max(a, TREATED)) }
                : f,
            ),
          }
        : null,
    [request, faces, weakest],
  );
  const treated = useJob('coverage.arrivals', treatedRequest).value?.find(
    (a) => now && a.faces.join() === now.faces.join(),
  );
  const late = direct
    ? all
        .map((a, i) => ({ a, i }))
        .filter(({ a }) => a.laterS >= LATE_S)
        .reduce<{ a: (typeof arrivals)[number]; i: number } | null>(
          (best, one) => (best && levelOf(best.a, direct) >= levelOf(one.a, direct) ? best : one),
          null,
        )
    : null;
  return (
    <>
      <Halves right={1.2}>
        <div className="plot">
          {seen === '3D' ? (
            <RoomInThree
              place={place}
              chosen={null}
              swallows={null}
              ways={ways}
              source={source.position}
              receiver={receiver?.position ?? null}
            />
          ) : null}
          {seen === '3D' ? null : (
            <PlaceDrawing
              place={place}
              live={[]}
              window={[-MARGIN, -CAPTION, width + 2 * MARGIN, height + CAPTION + MARGIN]}
              caption=""
              over={(projection) => (
                <g pointerEvents="none">
                  {others.map(({ points }, i) => (
                    <path
                      key={i}
                      d={pathOf(points, projection.at)}
                      fill="none"
                      stroke="var(--stone-ink)"
                      strokeWidth={1}
                      opacity={0.5}
                    />
                  ))}
                  {now && receiver ? (
                    <path
                      d={pathOf([source.position, ...now.points, receiver.position], projection.at)}
                      fill="none"
                      stroke="var(--buoy)"
                      strokeWidth={3.5}
                      strokeLinejoin="round"
                    />
                  ) : null}
                  {[source.position, ...(receiver ? [receiver.position] : [])].map((p, i) => {
                    const [cx, cy] = projection.at(p);
                    return (
                      <circle
                        key={i}
                        cx={cx}
                        cy={cy}
                        r={8}
                        fill={i === 0 ? 'var(--kelp)' : 'var(--ink)'}
                        stroke="var(--card)"
                        strokeWidth={2}
                      />
                    );
                  })}
                </g>
              )}
            />
          )}
          <div style={{ position: 'absolute', right: 10, top: 8, display: 'flex', gap: 6 }}>
            <Switch
              size="xs"
              label="all of them"
              checked={showsAll}
              onChange={(e) => setShowsAll(e.currentTarget.checked)}
            />
            <SeenFromControl seen={seen} onSeen={setSeen} />
          </div>
        </div>
        <div className="plot">
          {arrivals.length > 0 ? (
            <div style={{ display: 'grid', gridTemplateRows: '1.25fr 1fr', height: '100%', minHeight: 0 }}>
              <ArrivalStems arrivals={arrivals} direct={direct!} chosen={chosen} onChoose={setAt} />
              <ArrivalGlobe
                arrivals={arrivals}
                direct={direct!}
                chosen={chosen}
                onChoose={setAt}
                facing={frontOf(source.position, receiver!.position)}
              />
            </div>
          ) : (
            <p className="quiet" role="status" style={{ padding: 20 }}>
              {problem ??
                (request === null
                  ? 'Nobody sits here yet: draw an audience, a seat or a spot in Plan.'
                  : value
                    ? 'Nothing arrives: everything is swallowed, or stands in the way.'
                    : 'Following the ways of sound …')}
            </p>
          )}
        </div>
      </Halves>
      <aside className="notes" aria-label="What it says">
        <h2>
          What arrives<small>keys n and b step along</small>
        </h2>
        {now && direct ? (
          <Note number={1} small={`${lengthText(now.distance, lengthUnit)} in all`}>
            {arrivalSentence({
              laterS: now.laterS,
              db: levelOf(now, direct),
              direction: directionWords(now.going, frontOf(source.position, receiver!.position)),
              faces: now.faces.map(nameOf),
            })}
          </Note>
        ) : null}
        {now && direct && treated && weakest !== null && weakest !== undefined ? (
          <Note number={2}>
            {treatedSentence(nameOf(weakest), TREATED, levelOf(now, direct), levelOf(treated, direct))}
          </Note>
        ) : null}
        {direct ? (
          <Note number={3} attention={late !== null && levelOf(late.a, direct) > -10}>
            {lateSentence(
              late && {
                laterS: late.a.laterS,
                db: levelOf(late.a, direct),
                faces: late.a.faces.map(nameOf),
              },
            )}
            {late && late.a !== now ? (
              <>
                {' '}
                <button
                  className="linkish"
                  onClick={() => {
                    setShown('all');
                    setAt(late.i);
                  }}
                >
                  Show it
                </button>
              </>
            ) : null}
          </Note>
        ) : null}
        <Note number={4}>
          {direct && direct.faces.length > 0
            ? 'The direct sound does not get here: levels are against what arrives first. '
            : ''}
          Ways as from mirrors, with what faces swallow and scatter, and the air: what is scattered, and what
          met more faces, is left out here.
        </Note>
      </aside>
      <div
        className="shore"
        style={{ gridColumn: '1 / 3', gridTemplateColumns: 'minmax(0, 1.4fr) minmax(0, 1fr)', height: 118 }}
      >
        <section className="card" aria-label="From where to where">
          <h2>From where to where</h2>
          <div className="row" style={{ justifyContent: 'flex-start', gap: 8, flexWrap: 'wrap' }}>
            <NativeSelect
              size="xs"
              aria-label="Source"
              data={sources.map((s, i) => ({ value: String(i), label: s.name }))}
              value={String(Math.min(sourceAt, sources.length - 1))}
              onChange={(e) => setSource(Number(e.currentTarget.value))}
              w={280}
            />
            <NativeSelect
              size="xs"
              aria-label="Heard at"
              data={heard.map((h, i) => ({ value: String(i), label: `heard at ${h.name}` }))}
              value={String(Math.min(heardIndex, Math.max(0, heard.length - 1)))}
              onChange={(e) => setHeard(Number(e.currentTarget.value))}
              w={240}
            />
            <NativeSelect
              size="xs"
              aria-label="Shown"
              data={[
                { value: 'all', label: 'all of them' },
                ...ORDERS.filter((o) => Number(o) <= order).map((o) => ({
                  value: `met ${o}`,
                  label: o === '1' ? 'those of one face' : `those of ${o} faces`,
                })),
                ...[...new Set(faces.map((f) => f.name))].map((name) => ({
                  value: name,
                  label: `those off ${name}`,
                })),
              ]}
              value={shownOf}
              onChange={(e) => {
                setShown(e.currentTarget.value);
                setAt(0);
              }}
              w={190}
            />
            <NativeSelect
              size="xs"
              aria-label="Faces met at most"
              data={ORDERS.filter((o) => Number(o) <= most).map((o) => ({
                value: o,
                label: o === '1' ? 'one face met' : `up to ${o} faces met`,
              }))}
              value={String(order)}
              onChange={(e) => setOrder(Number(e.currentTarget.value))}
              w={150}
            />
          </div>
        </section>
        <section className="card" aria-label="This arrival">
          <h2>
            This arrival
            <small>{arrivals.length > 0 ? `${chosen + 1} of ${arrivals.length}` : ''}</small>
          </h2>
          <div className="row" style={{ justifyContent: 'flex-start', gap: 8 }}>
            <Button size="compact-sm" variant="default" disabled={chosen === 0} onClick={() => step(-1)}>
              Earlier
            </Button>
            <Button
              size="compact-sm"
              variant="default"
              disabled={chosen >= arrivals.length - 1}
              onClick={() => step(1)}
            >
              Later
            </Button>
          </div>
        </section>
      </div>
    </>
  );
}

/** An omnidirectional source stands where a loudspeaker does; in a place without any, before its front wall. */
function sourcesOf({ place }: Project): { name: string; position: Point }[] {
  const { loudspeakers, spots } = place;
  const [home] = spots;
  return loudspeakers.length > 0
    ? loudspeakers.map(({ name, position }) => ({ name: `omnidirectional, where ${name} is`, position }))
    : [{ name: 'omnidirectional, at the home spot', position: home?.position ?? { x: 1, y: 1, z: 1.2 } }];
}

/** The azimuth in which one looks who looks at the source, radians. */
const frontOf = (source: Point, receiver: Point): number =>
  distanceBetween(source, receiver) > 0 ? Math.atan2(source.y - receiver.y, source.x - receiver.x) : 0;

const pathOf = (points: readonly Point[], at: (p: Point) => [number, number]): string =>
  `M${points
    .map((p) =>
      at(p)
        .map((v) => v.toFixed(1))
        .join(' '),
    )
    .join('L')}`;
