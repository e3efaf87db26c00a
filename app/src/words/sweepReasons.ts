import { AIM_DB, DOUBTFUL_DB, type Disturbance, type Reason, type Verdict } from '@pebble-hall/core/measure';
import { formatHz } from '../charts/chartMath';

const seconds = (s: number) => `${s.toFixed(1)} s`;

function kindOf({ durationS, toHz, fromHz }: Disturbance): string {
  if (toHz <= 100) return 'a rumble';
  if (durationS < 0.45) return fromHz > 1500 ? 'a click' : 'a bang';
  return 'a noise';
}

/** Why a sweep is not simply good, in words. */
export function reasonSentence(reason: Reason): string {
  switch (reason.kind) {
    case 'silent':
      return 'nothing arrived: see whether it is connected, switched on and on this output';
    case 'clipped':
      return `the microphone input clipped (${reason.count} times, first at ${seconds(reason.atS)}): lower the input gain or the level`;
    case 'near noise':
      if (!Number.isFinite(reason.snrDb)) return 'lost in the noise: raise the level or wait for quiet';
      return `only ${Math.round(reason.snrDb)} dB above the noise, ${reason.aimDb} dB is the aim: raise the level or wait for quiet`;
    case 'no loopback':
      return 'the loopback carried nothing, so its time is not known: check the loopback cable';
    case 'no click':
      return 'the timing click was not heard, so the time is not known: check the reference loudspeaker';
    case 'dropouts':
      return `sound was lost on the way to the browser (${reason.count} times): close other programs and repeat it`;
    case 'disturbed': {
      const { atS, fromHz, toHz } = reason.disturbance;
      return `${kindOf(reason.disturbance)} at ${seconds(Math.max(0, atS))} of the sweep, ${formatHz(fromHz)} to ${formatHz(toHz)}: repeat it`;
    }
  }
}

/** A verdict as one line. */
export function verdictSentence({ state, reasons, snrDb }: Verdict): string {
  if (state === 'good' && Number.isFinite(snrDb)) return `good, ${Math.round(snrDb)} dB above the noise`;
  return reasons.map(reasonSentence).join('; ');
}

/** One word for a matrix cell. */
export function verdictWord({ state, reasons, snrDb }: Verdict): string {
  if (state === 'good') return Number.isFinite(snrDb) ? String(Math.round(snrDb)) : '–';
  const kind = reasons[0]?.kind;
  if (kind === 'disturbed') return 'noise';
  if (kind === 'clipped') return 'clipped';
  if (kind === 'silent') return 'silent';
  if (kind === 'no loopback') return 'no loop';
  if (kind === 'no click') return 'no click';
  if (kind === 'dropouts') return 'gaps';
  return Number.isFinite(snrDb) ? `${Math.round(snrDb)}, low` : 'lost';
}

/** Whether a margin over noise is enough, in one short line; whole dB. */
export function marginSentence(snrDb: number): string {
  if (!Number.isFinite(snrDb)) return 'nothing arrived';
  const margin = Math.round(snrDb);
  if (margin >= AIM_DB) return `loud enough, ${margin} dB above the noise`;
  const short = `${margin} dB above the noise, ${AIM_DB - margin} dB short`;
  return margin >= DOUBTFUL_DB ? short : `too quiet: ${short}`;
}
