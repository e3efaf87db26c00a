import { ActionIcon, Button, NativeSelect, Switch } from '@mantine/core';
import { MOST_ALL_PASSES, type AlignSource, type AlignStep, type Project } from '@pebble-hall/core/project';
import { speedOfSound } from '@pebble-hall/core/room';
import { IconX } from '../../icons';
import { CrossoverRow } from '../../parts/CrossoverRow';
import { LengthField } from '../../parts/LengthField';
import { NumberField } from '../../parts/NumberField';
import { traceName } from '../../services/libraryCurves';
import { changeSource, changeStep } from './changeAlign';
import { passesOf } from './passesOf';
import { FROM_LIVE, useTakeLive } from './useTakeLive';

interface Props {
  project: Project;
  step: AlignStep;
  source: AlignSource;
  /** gain that lays it on the target; null where there is none */
  ontoTarget: number | null;
}

const START = { hz: 80, q: 0.7 };

/** How one source is set: level, time, polarity, all-passes; and what it is made from. */
export function SettingCard({ project, step, source, ontoTarget }: Props) {
  const set = (label: string, change: Partial<Omit<AlignSource, 'id'>>) =>
    void changeSource(label, step.id, source.id, change);
  const isReference = source.id === step.referenceId;
  const metres = source.delayS * speedOfSound(project.place.temperatureC);
  const { allPasses } = source;
  return (
    <section className="card" aria-label="Setting" style={{ overflow: 'auto' }}>
      <h2 style={{ flexWrap: 'nowrap' }}>
        <span
          title={source.name}
          style={{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap', minWidth: 0 }}
        >
          {source.name}
        </span>
        {isReference ? (
          <small>the time reference: it does not move</small>
        ) : (
          <Button
            size="compact-xs"
            variant="subtle"
            style={{ flexShrink: 0 }}
            onClick={() =>
              void changeStep(`${source.name} is the time reference`, step.id, (s) => ({
                ...s,
                referenceId: source.id,
              }))
            }
          >
            As time reference
          </Button>
        )}
      </h2>
      <OfRow project={project} step={step} source={source} />
      <div className="row" style={{ gap: 6 }}>
        Gain
        <NumberField
          label="Gain"
          value={source.gainDb}
          unit="dB"
          min={-120}
          max={60}
          step={0.5}
          width={76}
          onChange={(gainDb) => set('gain', { gainDb })}
        />
        <span title={`${metres.toFixed(2)} m of air`.replace('-', '\u2212')}>Delay</span>
        <NumberField
          label="Delay"
          value={1000 * source.delayS}
          unit="ms"
          digits={2}
          min={-5000}
          max={5000}
          step={0.1}
          width={92}
          disabled={isReference}
          onChange={(ms) => set('delay', { delayS: ms / 1000 })}
        />
      </div>
      <div className="row" style={{ gap: 6 }}>
        <Switch
          size="xs"
          label="inverted"
          checked={source.inverted}
          onChange={(e) => set('polarity', { inverted: e.currentTarget.checked })}
        />
        <span style={{ display: 'flex', gap: 6 }}>
          {ontoTarget === null ? null : (
            <Button
              size="compact-xs"
              variant="default"
              onClick={() => set('laid on the target', { gainDb: Number(ontoTarget.toFixed(1)) })}
            >
              Onto the target
            </Button>
          )}
          <Button
            size="compact-xs"
            variant="default"
            disabled={allPasses.length >= MOST_ALL_PASSES}
            onClick={() => set('all-pass', { allPasses: [...allPasses, START] })}
          >
            All-pass
          </Button>
        </span>
      </div>
      {passesOf(project, source).map((pass) => (
        <CrossoverRow
          key={pass}
          name=""
          label={pass === 'highPass' ? 'High-pass' : 'Low-pass'}
          none={pass === 'highPass' ? 'no high-pass' : 'no low-pass'}
          value={source[pass]}
          onChange={(next) => set(pass === 'highPass' ? 'high-pass' : 'low-pass', { [pass]: next })}
        />
      ))}
      {allPasses.map((section, i) => {
        const with_ = (change: Partial<typeof section>) =>
          set('all-pass', { allPasses: allPasses.map((a, j) => (i === j ? { ...a, ...change } : a)) });
        return (
          <div className="row" key={i} style={{ gap: 4 }}>
            <NumberField
              label={`Frequency of all-pass ${i + 1}`}
              value={section.hz}
              unit="Hz"
              min={10}
              max={20_000}
              step={1}
              width={82}
              onChange={(hz) => with_({ hz })}
            />
            <NativeSelect
              size="xs"
              aria-label={`Order of all-pass ${i + 1}`}
              data={['1st', '2nd']}
              value={section.q === null ? '1st' : '2nd'}
              onChange={(e) => with_({ q: e.currentTarget.value === '1st' ? null : START.q })}
              style={{ flex: 1, minWidth: 0 }}
            />
            {section.q === null ? null : (
              <NumberField
                label={`Q of all-pass ${i + 1}`}
                value={section.q}
                unit="Q"
                digits={2}
                min={0.1}
                max={20}
                step={0.1}
                width={68}
                onChange={(q) => with_({ q })}
              />
            )}
            <ActionIcon
              size="sm"
              variant="subtle"
              color="gray"
              aria-label={`Without all-pass ${i + 1}`}
              onClick={() => set('all-pass removed', { allPasses: allPasses.filter((_, j) => j !== i) })}
            >
              <IconX size={14} />
            </ActionIcon>
          </div>
        );
      })}
    </section>
  );
}

/** What a source is made from, where something of that can be chosen. */
function OfRow({ project, step, source }: { project: Project; step: AlignStep; source: AlignSource }) {
  const { of } = source;
  const takeLive = useTakeLive(project);
  const set = (label: string, change: typeof of) =>
    void changeSource(label, step.id, source.id, { of: change });
  if (of.kind === 'distance')
    return (
      <div className="row">
        <span>Stands at, how many</span>
        <span style={{ display: 'flex', gap: 4 }}>
          <LengthField
            label="Distance"
            value={of.distanceM}
            unit={project.place.lengthUnit}
            min={0.1}
            max={1000}
            width={86}
            onChange={(distanceM) => set('distance', { ...of, distanceM })}
          />
          <NumberField
            label="Number of boxes"
            value={of.count}
            unit="×"
            digits={0}
            min={1}
            max={64}
            step={1}
            width={56}
            onChange={(count) => set('number of boxes', { ...of, count: Math.round(count) })}
          />
        </span>
      </div>
    );
  if (of.kind === 'channels')
    return (
      <div className="row">
        <span>Known from</span>
        <NativeSelect
          size="xs"
          aria-label="Known from"
          data={[
            { value: 'sweeps', label: 'sweeps of the walk' },
            { value: 'models', label: 'models, over all seats' },
          ]}
          value={of.from}
          onChange={(e) =>
            set('what it is known from', { ...of, from: e.currentTarget.value as typeof of.from })
          }
          style={{ flex: 1, minWidth: 0 }}
        />
      </div>
    );
  if (of.kind !== 'traces') return null;
  const others = project.kept.filter((k) => k.kind === 'transfer function' && !of.traceIds.includes(k.id));
  return (
    <div className="row" style={{ gap: 4 }}>
      <NativeSelect
        size="xs"
        aria-label="Variant of the processing"
        data={of.traceIds.map((id) => ({ value: id, label: traceName(project, id) ?? 'gone' }))}
        value={of.shownId}
        onChange={(e) => set('another variant', { ...of, shownId: e.currentTarget.value })}
        style={{ flex: 1, minWidth: 0 }}
      />
      {others.length > 0 || takeLive ? (
        <NativeSelect
          size="xs"
          aria-label="One more variant"
          w={96}
          data={[
            { value: '', label: 'one more …' },
            ...(takeLive ? [FROM_LIVE] : []),
            ...others.map((k) => ({ value: k.id, label: k.name })),
          ]}
          value=""
          onChange={(e) => {
            const { value } = e.currentTarget;
            const add = (id: string) =>
              set('one more variant', { ...of, traceIds: [...of.traceIds, id], shownId: id });
            if (value === FROM_LIVE.value) void takeLive?.().then((id) => id && add(id));
            else if (value) add(value);
          }}
        />
      ) : null}
    </div>
  );
}
