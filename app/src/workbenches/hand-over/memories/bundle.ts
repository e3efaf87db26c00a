import { mainTap } from '@pebble-hall/core/correct';
import { sectionAtRate, sectionBiquad } from '@pebble-hall/core/path';
import {
  bytesOfText,
  sectionsCsv,
  sectionsJson,
  sectionsText,
  writeResponseText,
  writeWav,
} from '@pebble-hall/core/formats';
import { crossoverText, feedText, type OutputSettings } from '@pebble-hall/core/processing';
import { resampleFir } from '@pebble-hall/core/signal';

export interface BundleChannel {
  name: string;
  output: number;
  fir: Float32Array | null;
  settings: OutputSettings | null;
}

/** A curve that goes out as text. */
export interface BundleCurve {
  /** path of the file, without its ending */
  path: string;
  /** what it is, in a sentence */
  about: string;
  frequency: Float64Array;
  levelDb: Float64Array;
}

export interface BundleRequest {
  project: string;
  /** where it was loaded: "memory B"; or that it was not */
  where: string;
  variant: string;
  channels: BundleChannel[];
  predictions: BundleCurve[];
  /** rate of the FIRs as they were made */
  rate: number;
  /** rates to export at */
  rates: number[];
  layout: 'one per channel' | 'one file';
  bits: 32 | 64;
}

export const RATES = [44100, 48000, 88200, 96000, 176400, 192000];
export const slug = (name: string): string =>
  name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '');

/** A correction as files: FIRs at the rates asked for, sections, delays and gains, predictions, and what must be known of them. */
export function bundleFiles(request: BundleRequest): Record<string, Uint8Array> {
  const { channels, rate, rates, layout, bits } = request;
  const files: Record<string, Uint8Array> = {};
  const withFir = channels.filter((c) => c.fir !== null);
  const notes: string[] = [];
  for (const to of withFir.length > 0 ? rates : []) {
    const made = withFir.map((c) => resampleFir(c.fir!, rate, to));
    const folder = `fir-${to}`;
    const kind = bits === 64 ? ('float64' as const) : ('float32' as const);
    const longest = Math.max(...made.map((m) => m.fir.length));
    if (layout === 'one file') {
      const padded = made.map(({ fir }) => {
        const out = new Float64Array(longest);
        out.set(fir);
        return out;
      });
      files[`${folder}/filters.wav`] = writeWav(padded, to, kind);
    }
    withFir.forEach((c, i) => {
      const stem = `${folder}/output-${c.output}-${slug(c.name)}`;
      if (layout === 'one per channel') files[`${stem}.wav`] = writeWav([made[i]!.fir], to, kind);
      files[`${stem}.txt`] = bytesOfText(
        [...made[i]!.fir].map((v) => v.toPrecision(bits === 64 ? 17 : 9)).join('\n') + '\n',
      );
    });
    const latency = made.map(
      ({ fir }, i) => `${withFir[i]!.name} ${((1000 * mainTap(fir)) / to).toFixed(2)} ms`,
    );
    const added = made[0]!.addedLatencyS;
    notes.push(
      `  ${to} Hz: ${longest} taps${added > 0 ? `; begins ${(1000 * added).toFixed(3)} ms later than at ${rate} Hz, all channels alike` : ''}`,
      `    latency, to the main tap: ${latency.join(', ')}`,
    );
  }
  const sections = channels.map((c) => ({
    name: `Output ${c.output}, ${c.name}`,
    sections: c.settings?.sections ?? [],
  }));
  if (sections.some((s) => s.sections.length > 0)) {
    files['sections/sections.txt'] = bytesOfText(sectionsText(sections));
    for (const to of rates) {
      files[`sections/biquads-${to}.csv`] = bytesOfText(sectionsCsv(sections, rate, to));
      files[`sections/biquads-${to}.json`] = bytesOfText(sectionsJson(sections, rate, to));
    }
  }
  for (const { path, about, frequency, levelDb } of request.predictions)
    files[`predictions/${path}.txt`] = bytesOfText(
      writeResponseText({ frequency, levelDb, phaseDeg: null }, [`${request.project}: ${about}`]),
    );
  if (channels.some((c) => c.settings)) files['delays-and-gains.csv'] = bytesOfText(settingsCsv(channels));
  files['README.txt'] = bytesOfText(
    readme(
      request,
      notes,
      sections.some((s) => s.sections.length > 0) ? deviations(channels, rate, rates) : null,
    ),
  );
  return files;
}

/** How far the sections of each rate deviate from those that were made, at most. */
const deviations = (channels: BundleChannel[], rate: number, rates: number[]): string[] =>
  rates.map((to) => {
    const made = channels.flatMap(({ settings }) =>
      (settings?.sections ?? []).map((section) => sectionAtRate(section, rate, to)),
    );
    const worst = made.reduce((a, b) => (b.deviationDb > a.deviationDb ? b : a));
    return `    ${to} Hz: a section deviates by at most ${worst.deviationDb.toFixed(2)} dB up to ${Math.round(worst.toHz)} Hz`;
  });

function settingsCsv(channels: BundleChannel[]): string {
  const rows = channels.flatMap(({ name, output, settings: s }) =>
    s
      ? [
          [
            output,
            `"${name.replaceAll('"', '""')}"`,
            s.trimDb,
            s.delayMs,
            s.inverted ? 'inverted' : 'normal',
            s.size,
            `"${crossoverText(s.size === 'small' ? s.highPass : null)}"`,
            `"${crossoverText(s.lowPass)}"`,
            `"${feedText(s.bassFeed)}"`,
            s.playsBass ? 'yes' : 'no',
          ].join(','),
        ]
      : [],
  );
  return [
    'output,channel,gain dB,delay ms,polarity,size,high-pass,low-pass,bass sent to the subwoofers,plays the bass of others',
    ...rows,
    '',
  ].join('\n');
}

function readme(
  { project, where, variant, channels, predictions, layout, bits, rate }: BundleRequest,
  rates: string[],
  /** how far sections deviate at each rate; null without sections */
  sections: string[] | null,
): string {
  const order = channels.filter((c) => c.fir).map((c, i) => `  ${i + 1}. output ${c.output}, ${c.name}`);
  const example = channels.flatMap((c) => c.settings?.sections ?? [])[0];
  const b = example && sectionBiquad(example, 48000);
  return [
    `${project}: ${where}${variant ? `, ${variant}` : ''}`,
    '',
    'What is in here',
    ...(rates.length > 0
      ? [
          `- fir-RATE/: filters as WAV (${bits}-bit float, ${layout === 'one file' ? 'one file, a channel for each output in the order below' : 'one file per output'}) and as text, one tap per line. A tap of 1 at the start changes nothing.`,
          ...rates,
          '  Other rates than the one they were made for are properly resampled: the response is the same up to 19.5 kHz within 0.05 dB.',
          ...(layout === 'one file' ? order : []),
        ]
      : []),
    ...(sections
      ? [
          '- sections/: parametric sections as a readable list, and as biquads (CSV, JSON) for each rate.',
          `  They were made for ${rate} Hz; at other rates each is fitted to the level that it has there:`,
          ...sections,
          '  Coefficients are given in both conventions, a0 = 1:',
          '    subtracted: y[n] = b0 x[n] + b1 x[n-1] + b2 x[n-2] - a1 y[n-1] - a2 y[n-2]',
          '    added:      y[n] = b0 x[n] + b1 x[n-1] + b2 x[n-2] + a1 y[n-1] + a2 y[n-2]',
          ...(b
            ? [
                `  (the first section at 48000 Hz: a1 subtracted ${b.a1.toPrecision(9)}, added ${(-b.a1).toPrecision(9)})`,
              ]
            : []),
        ]
      : []),
    ...(predictions.length > 0
      ? [
          '- predictions/: as found, target and as left (predicted), frequency and level in dB, 1/48 octave, the microphone corrected.',
        ]
      : []),
    '- delays-and-gains.csv: what each output does beside its filters. A positive delay is later. Gains are in dB; the headroom guard is in them.',
    '',
    'Order in each output: crossovers, sections, FIR, gain, polarity, delay.',
    'Bass that is sent to the subwoofers is taken at the input, ahead of the channel\u2019s own high-pass, low-passed as the table says, and added at the inputs of all outputs that play it.',
    'The filters go on top of what the processor did while the room was measured; its own trims and crossovers are in the table.',
    '',
  ].join('\n');
}
