import { ActionIcon, NativeSelect, Switch } from '@mantine/core';
import {
  LIBRARY_PLOTS,
  MOST_LOWER_PLOTS,
  SMOOTHINGS,
  type LibraryLook,
  type LibraryPlot,
  type Smoothing,
} from '@pebble-hall/core/project';
import { LIBRARY_GRID } from '@pebble-hall/core/traces';
import { IconPlus, IconX } from '../../../icons';
import { Fragment, useCallback, type ComponentProps, type ReactNode } from 'react';
import { levelRange } from '../../../charts/chartMath';
import type { LiveCurve } from '../../../charts/drawLive';
import { LivePlot } from '../../../charts/LivePlot';
import { WRAPS_DEG } from '../../../charts/overFrequency';
import { oneMorePlot, plotsWith } from './libraryLook';
import { LOWER_AXES, type CurvePlot } from './libraryValues';

interface Props {
  look: LibraryLook;
  onLook: (change: Partial<LibraryLook>) => void;
  levels: () => LiveCurve[];
  range: { lowDb: number; highDb: number };
  caption: string;
  curvesFor: (what: CurvePlot) => LiveCurve[];
  /** spectra that are shown, on the points of the library, and what their levels are */
  spectra: { curves: LiveCurve[]; unit: string };
  /** what differences are taken against; null for nothing */
  against: string | null;
  /** what is found of shapes, where they are read */
  shapes: ReactNode;
  handles: ComponentProps<typeof LivePlot>['handles'];
  tools: ReactNode;
  cursor: number | null;
  onCursor: (cursor: number | null) => void;
}

const never = () => () => {};
const PLACES = ['Below the level', 'Third plot', 'Fourth plot'];

/** Two to four plots over one axis of frequencies: the level, and below it what one chooses. */
export function LibraryPlots(props: Props) {
  const { look, onLook, range, handles, cursor, onCursor } = props;
  const { plots } = look;
  const band = { fromHz: look.fromHz, toHz: look.toHz };
  const shared = {
    frequency: LIBRARY_GRID,
    subscribe: never,
    band,
    onBand: (next: typeof band) => onLook(next),
    marked: look.marked,
    cursor,
    onCursor,
  };
  const readsShapes = plots.includes('Shapes');
  return (
    <div
      className="plot"
      style={{
        display: 'grid',
        gridTemplateColumns: 'minmax(0, 1fr)',
        gridTemplateRows: `minmax(0, ${readsShapes ? 0.75 : 1.4}fr) ${plots.map(() => '30px minmax(0, 1fr)').join(' ')}`,
      }}
    >
      <LivePlot
        {...shared}
        label="Level of the traces"
        unit="dB"
        caption={props.caption}
        range={range}
        curves={props.levels}
        {...(handles ? { handles } : {})}
        tools={props.tools}
      />
      {plots.map((plot, at) => (
        <Fragment key={plot}>
          <div
            style={{ display: 'flex', alignItems: 'center', gap: 10, padding: '0 22px 0 12px', minWidth: 0 }}
          >
            <NativeSelect
              size="xs"
              aria-label={PLACES[at]!}
              w={136}
              style={{ flexShrink: 0 }}
              data={[...LIBRARY_PLOTS]}
              value={plot}
              onChange={(e) => onLook({ plots: plotsWith(plots, at, e.currentTarget.value as LibraryPlot) })}
            />
            {plots.length > 1 ? (
              <ActionIcon
                size="sm"
                variant="subtle"
                color="gray"
                aria-label={`Without ${plot.toLowerCase()}`}
                onClick={() => onLook({ plots: plots.filter((p) => p !== plot) })}
              >
                <IconX size={14} />
              </ActionIcon>
            ) : null}
            {at === plots.length - 1 && plots.length < MOST_LOWER_PLOTS ? (
              <ActionIcon
                size="sm"
                variant="default"
                aria-label="One more plot"
                onClick={() => onLook({ plots: oneMorePlot(plots, LIBRARY_PLOTS) })}
              >
                <IconPlus size={14} />
              </ActionIcon>
            ) : null}
            {plot === 'Difference' || plot === 'Phase difference' ? (
              <span
                className="quiet"
                style={{ overflow: 'hidden', whiteSpace: 'nowrap', textOverflow: 'ellipsis', minWidth: 0 }}
              >
                {props.against === null ? 'choose under Look what against' : `against ${props.against}`}
              </span>
            ) : null}
            <span style={{ flex: 1 }} />
            {at === 0 ? (
              <>
                <Switch
                  size="xs"
                  label="fade by coherence"
                  style={{ flexShrink: 0 }}
                  checked={look.fades}
                  onChange={(e) => onLook({ fades: e.currentTarget.checked })}
                />
                <NativeSelect
                  size="xs"
                  w={104}
                  style={{ flexShrink: 0 }}
                  aria-label="Smoothing"
                  data={SMOOTHINGS.map((n) => ({ value: String(n), label: `1/${n} octave` }))}
                  value={String(look.smoothing)}
                  onChange={(e) => onLook({ smoothing: Number(e.currentTarget.value) as Smoothing })}
                />
              </>
            ) : null}
          </div>
          {plot === 'Shapes' ? (
            <div style={{ overflow: 'auto', minHeight: 0 }}>{props.shapes}</div>
          ) : plot === 'Spectrum' ? (
            <SpectraPlot {...shared} {...props.spectra} />
          ) : (
            <CurvesPlot {...shared} plot={plot} curvesFor={props.curvesFor} />
          )}
        </Fragment>
      ))}
    </div>
  );
}

type Shared = Pick<
  ComponentProps<typeof LivePlot>,
  'frequency' | 'subscribe' | 'band' | 'onBand' | 'marked' | 'cursor' | 'onCursor'
>;

function CurvesPlot({
  plot,
  curvesFor,
  ...shared
}: Shared & { plot: CurvePlot; curvesFor: Props['curvesFor'] }) {
  const curves = useCallback(() => curvesFor(plot), [curvesFor, plot]);
  const { unit, range, ticks } = LOWER_AXES[plot];
  return (
    <LivePlot
      {...shared}
      label={`${plot} of the traces`}
      unit={unit}
      caption={plot.toLowerCase()}
      range={range}
      ticks={[...ticks]}
      signed={plot !== 'Coherence'}
      curves={curves}
      {...(plot === 'Phase' || plot === 'Phase difference' ? { jump: WRAPS_DEG } : {})}
    />
  );
}

function SpectraPlot({ curves, unit, ...shared }: Shared & { curves: LiveCurve[]; unit: string }) {
  const drawn = useCallback(() => curves, [curves]);
  return (
    <LivePlot
      {...shared}
      label="Spectra of the library"
      unit={unit}
      caption={curves.length === 0 ? 'no spectrum is shown: press the eye of one' : 'spectrum'}
      range={levelRange(
        LIBRARY_GRID,
        curves.map((c) => c.values),
      )}
      signed={false}
      curves={drawn}
    />
  );
}
