import { Button, Checkbox, NativeSelect, Switch } from '@mantine/core';
import type { FoundDelay } from '@pebble-hall/core/live';
import type { PlannedMeasurement, Project } from '@pebble-hall/core/project';
import { memo, useState } from 'react';
import { useStore } from 'zustand';
import { BandFields } from '../../parts/BandFields';
import { NumberField } from '../../parts/NumberField';
import { findLiveDelay, liveSession } from '../../services/liveSession';
import { withMeasurement, withTimeReference } from '../../services/liveSettings';
import { notify, notifyProblem } from '../../services/notify';
import { sentenceOf } from '../../store';
import { changeLive } from './changeLive';
import { delayScale } from './delayUnits';
import type { LiveView } from './liveView';
import { useLiveFrame } from '../../services/useLiveFrame';

interface Props {
  project: Project;
  measurement: PlannedMeasurement;
  view: LiveView;
  onView: (change: Partial<LiveView>) => void;
}

/** Where a subwoofer plays: there the peak of an impulse says little. */
const BASS = { from: 30, to: 120 };

/** When the chosen measurement is heard after its reference: found, set, nudged, followed. */
export const DelayCard = memo(function DelayCard({ project, measurement, view, onView }: Props) {
  const { rate, status } = useStore(liveSession);
  const frame = useLiveFrame();
  const [found, setFound] = useState<{ id: string; delay: FoundDelay } | null>(null);
  const [isSearching, setSearching] = useState(false);
  const { id, isTracked } = measurement;
  const scale = delayScale(view.delayUnit, { rate, temperatureC: project.place.temperatureC });
  const now = frame?.measured.find((m) => m.id === id);
  // while it is followed, the session knows better than the project
  const delayS = isTracked && now && status === 'on' ? now.delayS : measurement.delayS;
  const written = (s: number) => `${(s * scale.perSecond).toFixed(scale.digits)} ${view.delayUnit}`;
  const set = (label: string, change: Partial<PlannedMeasurement>) =>
    void changeLive(label, (live) => withMeasurement(live, id, change));
  const find = async () => {
    setSearching(true);
    try {
      const delay = await findLiveDelay(id, view.findBand ?? undefined);
      if (!delay) {
        setFound(null);
        notify(
          `${measurement.name}: nothing of its reference is heard in it. Play something louder, or for longer.`,
        );
      } else {
        setFound({ id, delay });
        set(`delay of ${measurement.name}`, { delayS: delay.delayS });
      }
    } catch (error) {
      notifyProblem(`The delay was not found: ${sentenceOf(error)}`);
    } finally {
      setSearching(false);
    }
  };
  const shown = found?.id === id ? found.delay : null;
  const isReference = project.live.timeReferenceId === id;
  return (
    <section className="card" aria-label="Delay">
      <h2>
        Delay of {measurement.name}
        <small>{shown ? `${Math.round(100 * shown.sure)} % sure` : ''}</small>
      </h2>
      <div className="row">
        <NumberField
          label="Delay taken off"
          value={delayS * scale.perSecond}
          unit=""
          digits={scale.digits}
          min={-4 * scale.perSecond}
          max={4 * scale.perSecond}
          step={scale.step}
          width={104}
          disabled={isTracked}
          onChange={(value) => set(`delay of ${measurement.name}`, { delayS: value / scale.perSecond })}
        />
        <NativeSelect
          size="xs"
          aria-label="Unit of delays"
          w={92}
          data={['ms', 'm', 'ft', 'samples']}
          value={view.delayUnit}
          onChange={(e) => onView({ delayUnit: e.currentTarget.value as LiveView['delayUnit'] })}
        />
        <Button
          size="compact-sm"
          disabled={status !== 'on'}
          loading={isSearching}
          onClick={() => void find()}
        >
          Find
        </Button>
      </div>
      <div className="row">
        <Checkbox
          size="xs"
          label="only from"
          checked={view.findBand !== null}
          onChange={(e) => onView({ findBand: e.currentTarget.checked ? BASS : null })}
        />
        {view.findBand ? (
          <BandFields
            names={['Find from', 'Find to']}
            band={view.findBand}
            min={15}
            least={1.3}
            width={80}
            onChange={(findBand) => onView({ findBand })}
          />
        ) : (
          <span style={{ flex: 1 }}>a band, as of a subwoofer</span>
        )}
      </div>
      <div className="row">
        <Switch
          size="xs"
          label="Follow it"
          checked={isTracked}
          onChange={(e) =>
            set(e.currentTarget.checked ? 'delay followed' : 'delay held', {
              isTracked: e.currentTarget.checked,
              delayS,
            })
          }
        />
        <Switch
          size="xs"
          label="Time zero for all"
          checked={isReference}
          onChange={(e) => {
            const next = e.currentTarget.checked ? id : null;
            void changeLive('time reference', (live) => withTimeReference(live, next));
          }}
        />
      </div>
      {shown ? (
        <span className="quiet">
          Found within {Math.max(0.001, 1000 * shown.spreadS).toFixed(3)} ms;{' '}
          {shown.nextS === null ? 'nothing else comes near.' : `next best: ${written(shown.nextS)}.`}
        </span>
      ) : null}
    </section>
  );
});
