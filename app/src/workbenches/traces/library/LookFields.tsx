import { Button, NativeSelect, Switch } from '@mantine/core';
import {
  isAsItWas,
  LINE_STYLES,
  plainSweepLook,
  SMOOTHINGS,
  type LineStyle,
  type Project,
  type Smoothing,
  type SweepLook,
} from '@pebble-hall/core/project';
import type { Shape } from '@pebble-hall/core/shapes';
import type { ReactNode } from 'react';
import { TRACE_COLOURS } from '../../../charts/traceColours';
import { NumberField } from '../../../parts/NumberField';
import { ShapeFields } from './ShapeFields';
import { WindowFields } from './WindowFields';

interface Props {
  project: Pick<Project, 'calibrations'>;
  look: SweepLook;
  /** its own, of a trace that is made of shapes; else those that act on it */
  shapes: readonly Shape[];
  isOfShapes: boolean;
  onLook: (label: string, change: Partial<SweepLook>) => void;
  onShapes: (shapes: Shape[]) => void;
  children?: ReactNode;
}

/** How a trace is looked at, whatever it is: nothing of it touches its samples, and one press takes it back. */
export function LookFields({ project, look, shapes, isOfShapes, onLook, onShapes, children }: Props) {
  return (
    <>
      <div className="row">
        Seen
        <NumberField
          label="Gain of the trace"
          value={look.gainDb}
          unit="dB"
          min={-60}
          max={60}
          step={0.5}
          width={76}
          onChange={(gainDb) => onLook('gain of a trace', { gainDb })}
        />
        <NumberField
          label="Delay of the trace"
          value={1000 * look.delayS}
          unit="ms"
          digits={3}
          min={-4000}
          max={4000}
          step={0.1}
          width={92}
          onChange={(ms) => onLook('delay of a trace', { delayS: ms / 1000 })}
        />
      </div>
      <div className="row">
        <Switch
          size="xs"
          label="inverted"
          checked={look.inverted}
          onChange={(e) => onLook('polarity of a trace', { inverted: e.currentTarget.checked })}
        />
        {children}
        <Button
          size="compact-xs"
          variant="default"
          disabled={isAsItWas(look)}
          onClick={() => {
            // its colour and line tell it from others, and nothing else
            const { colour: _, line: __, ...plain } = plainSweepLook();
            onLook('trace seen as it was', plain);
          }}
        >
          As it was
        </Button>
      </div>
      <div className="row" style={{ gap: 4 }}>
        <NativeSelect
          size="xs"
          aria-label="Colour of the trace"
          style={{ flex: 1 }}
          data={[
            { value: '', label: 'next colour' },
            ...TRACE_COLOURS.map((c) => ({ value: c, label: c.replace('trace-', '') })),
          ]}
          value={look.colour ?? ''}
          onChange={(e) => onLook('colour of a trace', { colour: e.currentTarget.value || null })}
        />
        <NativeSelect
          size="xs"
          aria-label="Line of the trace"
          data={[...LINE_STYLES]}
          value={look.line}
          onChange={(e) => onLook('line of a trace', { line: e.currentTarget.value as LineStyle })}
        />
        <NativeSelect
          size="xs"
          aria-label="Smoothing of the trace"
          data={[
            { value: '', label: 'as all' },
            ...SMOOTHINGS.map((n) => ({ value: String(n), label: `1/${n} oct` })),
          ]}
          value={look.smoothing === null ? '' : String(look.smoothing)}
          onChange={(e) =>
            onLook('smoothing of a trace', {
              smoothing: e.currentTarget.value === '' ? null : (Number(e.currentTarget.value) as Smoothing),
            })
          }
        />
      </div>
      <WindowFields project={project} look={look} onLook={onLook} />
      <details open={isOfShapes || look.shapes.length > 0}>
        <summary style={{ cursor: 'pointer' }}>
          {isOfShapes ? 'Its shapes' : look.shapes.length > 0 ? 'Behind shapes' : 'Put it behind shapes'}
        </summary>
        <ShapeFields shapes={shapes} mayBeEmpty={!isOfShapes} onChange={onShapes} />
      </details>
    </>
  );
}
