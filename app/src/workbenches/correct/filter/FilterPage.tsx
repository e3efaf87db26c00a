import { SHAPING_KINDS, type Section } from '@pebble-hall/core/path';
import { theProcessor } from '../../../services/theProcessor';
import { Checkbox, SegmentedControl } from '@mantine/core';
import { withinProcessor, type ExactChannel, type FilterChoice } from '@pebble-hall/core/correct';
import { GUARDS, type Correction, type Guard } from '@pebble-hall/core/project';
import { formatDb, formatHz } from '../../../charts/chartMath';
import { NumberField } from '../../../parts/NumberField';
import { GUARD_NAMES } from '../../../words/guard';
import { preRingingLines, preRingingWords } from '../../../words/preRinging';
import { SectionTable } from './SectionTable';
import type { Edit } from '../useCorrection';

interface FilterPageProps {
  channel: { id: string; name: string };
  correction: Correction;
  /** null until it is worked out */
  exact: ExactChannel | null;
  /** what the headroom guard does, in words */
  guard: string;
  onEdit: Edit;
}

const STYLE_WORDS: Record<FilterChoice['style'], string> = {
  minimum: 'No latency. Phase follows the magnitude, as that of the room’s own resonances does.',
  mixed: 'Undoes only the excess phase that all spots share; nothing sounds earlier than 9 ms ahead.',
  linear: 'Leaves phase as it is, half the filter’s length late; rings ahead as much as after.',
};

/** What the correction is made of: a FIR of some phase style, parametric sections, or both. */
export function FilterPage({ channel, correction, exact, guard, onEdit }: FilterPageProps) {
  const { profile } = theProcessor();
  const { mostTaps, mostSections, rate, sectionKinds } = profile;
  const filter = withinProcessor(correction.filter, profile);
  const set = (label: string, next: Partial<FilterChoice>) =>
    onEdit(label, (now) => ({ filter: { ...now.filter, ...next } }));
  const byHand = correction.sections[channel.id];
  const setSections = (label: string, sections: Section[] | null) =>
    onEdit(label, (now) => {
      const { [channel.id]: _gone, ...others } = now.sections;
      return { sections: sections ? { ...others, [channel.id]: sections } : others };
    });
  return (
    <>
      <section className="card" aria-label="Which filter">
        <h2>
          Which filter <small>the same for all channels</small>
        </h2>
        <SegmentedControl
          size="xs"
          aria-label="Form of the filter"
          data={[
            { value: 'fir', label: 'FIR', disabled: mostTaps === 0 },
            { value: 'sections', label: 'Sections', disabled: mostSections === 0 },
            { value: 'both', label: 'Both', disabled: mostTaps === 0 || mostSections === 0 },
          ]}
          value={filter.form}
          onChange={(v) => set(`filter: ${v}`, { form: v as FilterChoice['form'] })}
        />
        {filter.form !== correction.filter.form ? (
          <span className="attention">
            {profile.model} holds{' '}
            {mostTaps === 0 ? 'no FIR: sections are used' : 'no sections: a FIR is used'}.
          </span>
        ) : null}
        {filter.form === 'sections' ? (
          <span className="quiet">Minimum phase, no latency; as many processors offer it.</span>
        ) : (
          <>
            <SegmentedControl
              size="xs"
              aria-label="Phase style"
              data={[
                { value: 'minimum', label: 'Minimum' },
                { value: 'mixed', label: 'Mixed' },
                { value: 'linear', label: 'Linear' },
              ]}
              value={filter.style}
              onChange={(v) => set(`phase style ${v}`, { style: v as FilterChoice['style'] })}
            />
            <span className="quiet">{STYLE_WORDS[filter.style]}</span>
          </>
        )}
      </section>
      <section className="card" aria-label="Size of the filter">
        <h2>
          Size{' '}
          <small>
            {mostTaps} taps and {mostSections} sections fit
          </small>
        </h2>
        {filter.form === 'sections' ? null : (
          <div className="row">
            <span>FIR</span>
            <NumberField
              label="FIR length"
              value={filter.taps ?? mostTaps}
              unit="taps"
              min={256}
              max={mostTaps}
              step={256}
              digits={0}
              width={104}
              onChange={(taps) =>
                set(`FIR of ${taps} taps`, {
                  taps: taps === mostTaps ? null : Math.round(taps),
                })
              }
            />
            <span className="mono">{Math.round((1000 * (filter.taps ?? mostTaps)) / rate)} ms</span>
          </div>
        )}
        {filter.form === 'fir' ? (
          <span className="quiet">
            At {rate / 1000} kHz it tells apart what lies {(rate / (filter.taps ?? mostTaps)).toFixed(1)} Hz
            from each other.
          </span>
        ) : (
          <>
            <div className="row">
              <span>Sections</span>
              <NumberField
                label="Most sections"
                value={filter.sectionCount}
                unit=""
                min={1}
                max={mostSections}
                step={1}
                digits={0}
                width={66}
                onChange={(sectionCount) =>
                  set(`${sectionCount} sections`, { sectionCount: Math.round(sectionCount) })
                }
              />
              <span>Q</span>
              <NumberField
                label="Least Q"
                value={filter.leastQ}
                unit=""
                min={profile.leastQ}
                max={filter.mostQ}
                step={0.1}
                width={66}
                onChange={(leastQ) => set(`Q from ${leastQ}`, { leastQ })}
              />
              <span>to</span>
              <NumberField
                label="Most Q"
                value={filter.mostQ}
                unit=""
                min={filter.leastQ}
                max={profile.mostQ}
                step={1}
                width={72}
                onChange={(mostQ) => set(`Q up to ${mostQ}`, { mostQ })}
              />
            </div>
            <div className="row" style={{ justifyContent: 'flex-start' }}>
              {SHAPING_KINDS.filter((kind) => sectionKinds.includes(kind)).map((kind) => (
                <Checkbox
                  key={kind}
                  size="xs"
                  label={kind}
                  checked={filter.kinds.includes(kind)}
                  disabled={filter.kinds.length === 1 && filter.kinds[0] === kind}
                  onChange={(e) =>
                    set(`kinds of sections`, {
                      kinds: e.currentTarget.checked
                        ? [...filter.kinds, kind]
                        : filter.kinds.filter((k) => k !== kind),
                    })
                  }
                />
              ))}
            </div>
          </>
        )}
      </section>
      {filter.form === 'fir' ? null : (
        <SectionTable
          channel={channel.name}
          sections={byHand ?? exact?.sections ?? null}
          byHand={byHand !== undefined}
          onChange={setSections}
        />
      )}
      <section className="card" aria-label="The filter as made">
        <h2>
          As made <small>{channel.name}</small>
        </h2>
        {exact ? (
          <>
            <div className="row">
              <span>Remaining error</span>
              <b className="mono">{exact.errorDb.toFixed(2)} dB RMS</b>
            </div>
            {exact.withAll ? (
              <div className="row" title="Fewer sections are used where the remaining error hardly grows">
                <span>Sections</span>
                <span>
                  {exact.sections.length}; {exact.withAll.count} would leave{' '}
                  <b className="mono">{exact.withAll.errorDb.toFixed(2)} dB</b>
                </span>
              </div>
            ) : null}
            <div className="row">
              <span>Latency</span>
              <b className="mono">{(1000 * exact.latencyS).toFixed(1)} ms</b>
            </div>
            <div
              className="row"
              title={preRingingLines(exact.ahead) || 'A filter of minimum phase has none.'}
            >
              <span>Pre-ringing</span>
              <b className="mono" style={{ whiteSpace: 'nowrap' }}>
                {preRingingWords(exact.ahead)}
              </b>
            </div>
            <div className="row" title="For a steady tone">
              <span>Largest gain</span>
              <span>
                <b className="mono">{formatDb(exact.headroom.toneDb)}</b>{' '}
                <small>at {formatHz(exact.headroom.atHz)}</small>
              </span>
            </div>
            <div
              className="row"
              title="What limited pink noise and strokes that die away peak at behind this filter when they peak at full scale before it"
            >
              <span>Programme peaks at</span>
              <b className="mono">{formatDb(exact.headroom.programmeDb)}</b>
            </div>
            <div
              className="row"
              title="What tones and squares at full scale, at any frequency from 20 Hz on, peak at behind this filter"
            >
              <span>Full scale peaks at</span>
              <span>
                <b className="mono">{formatDb(exact.headroom.fullScaleDb)}</b>{' '}
                <small>
                  {exact.headroom.fullScaleOf.kind}, {formatHz(exact.headroom.fullScaleOf.atHz)}
                </small>
              </span>
            </div>
          </>
        ) : (
          <span className="quiet">Being made …</span>
        )}
        <div style={{ display: 'grid', gap: 3 }}>
          <span>
            Headroom guard <small aria-label="What the guard takes">{guard}</small>
          </span>
          <SegmentedControl
            size="xs"
            aria-label="Headroom guard"
            title="Lowers every channel by what full-scale signals would peak over full scale behind any chain, so that the balance stays. Programme: tones, limited pink noise, strokes. Any signal: squares as well."
            data={GUARDS.map((value) => ({ value, label: GUARD_NAMES[value] }))}
            value={correction.headroomGuard}
            onChange={(value) =>
              onEdit(`headroom guard: ${GUARD_NAMES[value as Guard]}`, { headroomGuard: value as Guard })
            }
          />
        </div>
      </section>
    </>
  );
}
