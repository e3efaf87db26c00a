import { SegmentedControl } from '@mantine/core';
import { ECHO_SIGNALS, type EchoSignal } from '@pebble-hall/core/acoustics';
import type { Project } from '@pebble-hall/core/project';
import { OverTime } from '../../charts/OverTime';
import { Note } from '../../parts/Note';
import { TableMenu } from '../../parts/TableMenu';
import { useKeys } from '../../parts/useKeys';
import { useJob } from '../../services/useJob';
import { isOneOf, useKept } from '../../services/useKept';
import { echoSentence, flutterSentence, focusSentence, shareText } from '../../words/echoWords';
import { Halves } from './Halves';
import { ReceiverPlan } from './ReceiverPlan';
import { RunNotes, RunWaits } from './RunFrame';
import { useHeld, useReceiver, type Runs } from './useRuns';
import { WhereCard } from './WhereCard';

const SIGNALS = Object.keys(ECHO_SIGNALS) as EchoSignal[];
/** Not looked at here, but asked for with the rest. */
const WANTED_PER_MS = 50;
/** Echoes are looked at up to 0.6 s. */
const SHOWN = 600;

/** Does it echo? The echo criterion at each receiver, over time at one of them, and what makes it. */
export function EchoView({ project, runs }: { project: Project; runs: Runs }) {
  const { place } = project;
  const { shown, beside } = runs;
  const { asked, askedBeside, names, index, besideIndex, setReceiver, step } = useReceiver(runs);
  const [signal, setSignal] = useKept<EchoSignal>('room-model echo', 'speech', isOneOf(SIGNALS));
  const echoes = useJob('rays.echoes', asked);
  const held = useHeld(echoes.value, runs);
  const here = useJob('rays.receiver', asked && { ...asked, index, wantedPerMs: WANTED_PER_MS });
  const there = useJob(
    'rays.receiver',
    askedBeside ? { ...askedBeside, index: besideIndex, wantedPerMs: WANTED_PER_MS } : null,
  );
  useKeys({
    n: () => step(1),
    b: () => step(-1),
    f: () => setSignal(signal === 'speech' ? 'music' : 'speech'),
  });
  if (!shown || !held) return <RunWaits runs={runs} problem={echoes.problem} share={echoes.share} />;
  const shares = held.map((e) => e[signal].share);
  const worst = shares.reduce((best, s, i) => (s > shares[best]! ? i : best), 0);
  const disturbed = shares.filter((s) => s >= 0.1).length;
  const seen = here.value;
  const echo = seen?.echo[signal];
  const { tenth, half } = ECHO_SIGNALS[signal];
  const faceNames = shown.faces.map((f) => f.name);
  const table = () => ({
    title: `${shown.name}: echoes`,
    columns: ['Receiver', ...SIGNALS.flatMap((s) => [`EK, ${s}`, `at, ms, ${s}`, `disturbed, %, ${s}`])],
    rows: held.map((e, i) => [
      names[i]!,
      ...SIGNALS.flatMap((s) => [
        e[s].largest.toFixed(2),
        (1000 * e[s].atS).toFixed(0),
        (100 * e[s].share).toFixed(0),
      ]),
    ]),
  });
  return (
    <>
      <Halves>
        <div className="plot">
          <ReceiverPlan
            place={place}
            run={shown}
            values={shares}
            text={shareText}
            label={`of listeners disturbed, ${signal}`}
            chosen={index}
            onChoose={setReceiver}
            range={{ low: 0, high: 1 }}
          />
        </div>
        <div className="plot">
          {seen && echo ? (
            <OverTime
              label={`Echo criterion at ${names[index]!}, ${signal}`}
              unit={`echo criterion for ${signal} (Dietsch and Kraak 1986)`}
              stepS={echo.stepS}
              low={0}
              high={Math.max(1.25 * half, 1.1 * echo.largest)}
              ticks={[
                ...[0, 0.5, 1, 1.5, 2].map((at) => ({ at, text: String(at) })),
                { at: tenth, text: `${tenth}: one in ten disturbed`, isWarning: true },
                { at: half, text: `${half}: one in two`, isWarning: true },
              ]}
              mark={
                echo.largest >= tenth ? { atS: echo.atS, text: `${(1000 * echo.atS).toFixed(0)} ms` } : null
              }
              curves={[
                { label: shown.name, colour: 'trace-kelp', values: echo.values.slice(0, SHOWN) },
                ...(there.value
                  ? [
                      {
                        label: beside!.name,
                        colour: 'trace-mussel',
                        values: there.value.echo[signal].values.slice(0, SHOWN),
                      },
                    ]
                  : []),
              ]}
            />
          ) : (
            <p className="quiet" role="status" style={{ padding: 20 }}>
              {here.problem ?? 'Listening for echoes …'}
            </p>
          )}
        </div>
      </Halves>
      <aside className="notes" aria-label="What it says">
        <h2>
          {names[index]!}
          <small>keys n, b: seats; f: speech or music</small>
        </h2>
        {seen && echo ? (
          <Note
            number={1}
            attention={echo.largest >= tenth}
            small={`EK ${echo.largest.toFixed(2)}, exponent ${ECHO_SIGNALS[signal].exponent.toFixed(2)}, within ${1000 * ECHO_SIGNALS[signal].withinS} ms, ${ECHO_SIGNALS[signal].bandHz.join(' to ')} Hz`}
          >
            {echoSentence(signal, echo, seen.echoFrom[signal], faceNames)}
          </Note>
        ) : null}
        <Note number={2} attention={disturbed > 0}>
          {disturbed === 0
            ? `At none of ${names.length} seats would an echo disturb one listener in ten.`
            : `At ${disturbed} of ${names.length} seats an echo would disturb one listener in ten or more; most of them at ${names[worst]!}: ${shareText(shares[worst]!)}.`}
          {disturbed > 0 && worst !== index ? (
            <>
              {' '}
              <button className="linkish" onClick={() => setReceiver(worst)}>
                Show it
              </button>
            </>
          ) : null}
        </Note>
        {seen ? (
          <Note
            number={3}
            attention={seen.flutter !== null}
            small="Pulses between two faces that look at each other, 500 Hz to 2 kHz, against what else arrives within their period"
          >
            {flutterSentence(seen.flutter, faceNames)}
          </Note>
        ) : null}
        {seen && seen.curved > 0 ? (
          <Note
            number={4}
            attention={seen.focus !== null}
            small="Ways off one face each of a surface that is curved, 500 Hz to 2 kHz, as finely as it is drawn"
          >
            {focusSentence(seen.focus, faceNames)}
          </Note>
        ) : null}
        <RunNotes project={project} runs={runs} from={seen && seen.curved > 0 ? 5 : 4} />
      </aside>
      <div
        className="shore"
        style={{ gridColumn: '1 / 3', gridTemplateColumns: 'minmax(0, 1fr) minmax(0, 1fr)', height: 92 }}
      >
        <section className="card" aria-label="What is listened for">
          <h2>What is listened for</h2>
          <div className="row">
            <SegmentedControl
              size="xs"
              aria-label="Signal"
              data={[...SIGNALS]}
              value={signal}
              onChange={(v) => setSignal(v as EchoSignal)}
            />
            <TableMenu table={table} />
          </div>
        </section>
        <WhereCard names={names} index={index} onChoose={setReceiver} step={step} />
      </div>
    </>
  );
}
