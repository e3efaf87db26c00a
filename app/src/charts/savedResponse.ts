import { axisHz, frequencyTicks, levelTicks } from './chartMath';
import type { ChartTrace, TraceRole } from './drawTraces';
import type { SavedPlot } from './plotSvg';

/** Lines of the roles on paper. */
export const DASH: Record<TraceRole, string> = {
  measured: '',
  predicted: '8 5',
  reference: '2 4',
  noise: '',
};

/** A plot of responses as it is saved: what is on screen, in the colours of the light theme. */
export function savedResponse(
  title: string,
  smoothing: string | null,
  levelLabel: string,
  view: { fromHz: number; toHz: number; lowDb: number; highDb: number },
  frequency: Float64Array,
  traces: ChartTrace[],
  target: Float64Array | null,
): SavedPlot {
  const date = new Date().toLocaleDateString(undefined, { dateStyle: 'medium' });
  return {
    title,
    subtitle: [date, ...(smoothing ? [`smoothed ${smoothing}`] : [])].join(', '),
    x: {
      from: view.fromHz,
      to: view.toHz,
      log: true,
      label: 'Hz',
      ticks: frequencyTicks(view.fromHz, view.toHz).labels.map((at) => ({ at, text: axisHz(at) })),
    },
    y: {
      from: view.lowDb,
      to: view.highDb,
      log: false,
      label: levelLabel,
      ticks: levelTicks(view.lowDb, view.highDb).map((at) => ({
        at,
        text: String(at).replace('-', '\u2212'),
      })),
    },
    lines: [
      ...(target ? [{ label: 'target', colour: '#8c8474', dash: '', x: frequency, y: target }] : []),
      ...traces.map(({ label, role, colour, levels }) => ({
        label,
        colour: PRINTED[colour] ?? '#22292b',
        dash: DASH[role],
        x: frequency,
        y: levels,
      })),
    ],
  };
}

/** The trace colours of the light theme, for white paper. */
export const PRINTED: Record<string, string> = {
  'trace-kelp': '#1f7a74',
  'trace-buoy': '#d2622a',
  'trace-heather': '#7b5ea7',
  'trace-gorse': '#b88a00',
  'trace-mussel': '#2b4c7e',
  'trace-campion': '#c44569',
  'trace-moss': '#5e7f2e',
  'trace-slate': '#5b6770',
};
