import type { Project } from '@pebble-hall/core/project';
import { traceColour } from '../../../charts/traceColours';
import { deviceName } from '../../../services/theDevice';
import { rigName } from '../../../services/theRig';

const BOX = { width: 190, height: 132 };
const ROW = 26;

/** What is plugged into what, drawn and as a list. */
export function WiringPicture({ project }: { project: Project }) {
  const { electronics } = project.live;
  const { loopbackInput } = project.rig;
  const { output, inputs } = electronics;
  const device = deviceName(project);
  const ports = [
    { text: `output ${output}`, to: 'its input' },
    ...inputs.map((n, i) => ({
      text: `input ${n}`,
      to: inputs.length === 1 ? 'its output' : `output ${'AB'[i]}`,
    })),
  ];
  const lists = [
    `Output ${output} of the interface to the input of ${device}${inputs.length > 1 ? '; split to every channel that is compared' : ''}.`,
    ...inputs.map(
      (n, i) =>
        `${inputs.length > 1 ? `Its ${i === 0 ? 'first' : 'second'} output` : 'Its output'} to input ${n}: channel ${'AB'[i]}.`,
    ),
    loopbackInput === null || inputs.includes(loopbackInput)
      ? 'There is no loopback: what is played is the reference, so the latency of the interface counts as that of the device.'
      : `The loopback on input ${loopbackInput} stays plugged: it is the reference.`,
    'No loudspeaker hangs on this output. Begin with the device turned down.',
  ];
  const y = (i: number) => 44 + i * ROW;
  return (
    <section
      aria-label="Wiring"
      style={{
        overflow: 'auto',
        padding: '6px 14px',
        display: 'flex',
        gap: 24,
        alignItems: 'center',
        fontSize: 13,
      }}
    >
      <svg
        role="img"
        aria-label={lists.slice(0, 1 + inputs.length).join(' ')}
        viewBox="0 0 560 150"
        style={{ flex: '1 1 300px', minWidth: 280, maxHeight: 200 }}
      >
        {[0, 560 - BOX.width - 10].map((x) => (
          <rect
            key={x}
            x={x + 5}
            y={8}
            {...BOX}
            rx={10}
            fill="var(--stone)"
            stroke="var(--line)"
            strokeWidth={1.5}
          />
        ))}
        <text x={20} y={28} fontSize={13} fontWeight={700} fill="var(--ink)">
          {rigName(project).replace(/,.*/, '')}
        </text>
        <text x={380} y={28} fontSize={13} fontWeight={700} fill="var(--ink)">
          {device}
        </text>
        {ports.map((p, i) => (
          <g key={p.text} fontSize={12.5} fill="var(--ink)">
            <text x={180} y={y(i) + 10} textAnchor="end">
              {p.text}
            </text>
            <text x={380} y={y(i) + 10}>
              {p.to}
            </text>
            <line
              x1={196}
              x2={364}
              y1={y(i) + 6}
              y2={y(i) + 6}
              stroke={i === 0 ? 'var(--ink)' : `var(--${traceColour(i - 1)})`}
              strokeWidth={2.4}
            />
            <polygon
              points={
                i === 0
                  ? `366,${y(i) + 6} 356,${y(i) + 1} 356,${y(i) + 11}`
                  : `194,${y(i) + 6} 204,${y(i) + 1} 204,${y(i) + 11}`
              }
              fill={i === 0 ? 'var(--ink)' : `var(--${traceColour(i - 1)})`}
            />
          </g>
        ))}
        {loopbackInput !== null && !inputs.includes(loopbackInput) ? (
          <text x={20} y={y(ports.length) + 10} fontSize={12} fill="var(--soft)">
            loopback on input {loopbackInput}
          </text>
        ) : null}
      </svg>
      <ol style={{ margin: 0, paddingLeft: 18, flex: '1 1 240px', display: 'grid', gap: 4 }}>
        {lists.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ol>
    </section>
  );
}
