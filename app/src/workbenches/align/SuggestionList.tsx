import { NativeSelect } from '@mantine/core';
import type { Suggestion } from '@pebble-hall/core/alignment';
import { MOST_ALL_PASSES, type AlignSource, type AlignStep } from '@pebble-hall/core/project';
import { percent, settingWords, suggestionWords } from '../../words/alignWords';
import { changeStep } from './changeAlign';

interface Props {
  step: AlignStep;
  moved: AlignSource;
  suggestions: readonly Suggestion[];
  busy: boolean;
  problem: string | null;
  /** of all spots, as it is set now */
  nowEfficiency: number | null;
  spots: number;
  mostDelayS: number;
  onTry: (index: number) => void;
}

export const isTried = (moved: AlignSource, s: Suggestion): boolean =>
  moved.inverted === s.inverted &&
  Math.abs(moved.delayS - s.delayS) < 5e-6 &&
  JSON.stringify(moved.allPasses) === JSON.stringify(s.allPasses);

/** Ranked ways to bring a source to the others; one click tries one. */
export function SuggestionList(props: Props) {
  const { step, moved, suggestions, busy, nowEfficiency, spots } = props;
  return (
    <>
      <h2>
        Ways to bring them together
        <small>{busy ? 'looking …' : suggestions.length > 0 ? 'keys 1 to 9, 0 back' : ''}</small>
      </h2>
      {props.problem ? <span className="quiet">{props.problem}</span> : null}
      <div role="group" aria-label="Ways to bring them together" style={{ display: 'grid', gap: 6 }}>
        {suggestions.map((s, i) => (
          <button
            key={i}
            className="chip"
            aria-pressed={isTried(moved, s)}
            style={{ display: 'block', textAlign: 'left', padding: '6px 10px', whiteSpace: 'normal' }}
            onClick={() => props.onTry(i)}
          >
            <span style={{ display: 'flex', justifyContent: 'space-between', gap: 8, fontWeight: 600 }}>
              <span>
                {i + 1}. {settingWords({ delayS: s.delayS, inverted: s.inverted, allPasses: s.allPasses })}
              </span>
              <span className="mono" style={{ whiteSpace: 'nowrap' }}>
                {percent(step.aim === 'worst' ? s.worst : s.efficiency)}
              </span>
            </span>
            <small>{suggestionWords(s, nowEfficiency ?? s.efficiency, spots)}</small>
          </button>
        ))}
      </div>
      <div className="row" style={{ gap: 6 }}>
        <NativeSelect
          size="xs"
          aria-label="All-pass sections allowed"
          data={Array.from({ length: MOST_ALL_PASSES + 1 }, (_, n) => ({
            value: String(n),
            label: n === 0 ? 'delay and polarity' : n === 1 ? 'and one all-pass' : 'and two all-passes',
          }))}
          value={String(step.mostAllPasses)}
          onChange={(e) => {
            const most = Number(e.currentTarget.value);
            void changeStep('all-pass sections allowed', step.id, (s) => ({ ...s, mostAllPasses: most }));
          }}
          style={{ flex: 1, minWidth: 0 }}
        />
        {spots > 1 ? (
          <NativeSelect
            size="xs"
            aria-label="What is sought"
            data={[
              { value: 'mean', label: 'best on average' },
              { value: 'worst', label: 'best at the worst' },
              ...(step.alignAt ? [{ value: 'place', label: 'at one place alone' }] : []),
            ]}
            value={step.aim}
            onChange={(e) => {
              const aim = e.currentTarget.value as AlignStep['aim'];
              void changeStep('what is sought', step.id, (s) => ({ ...s, aim }));
            }}
            style={{ flex: 1, minWidth: 0 }}
          />
        ) : null}
      </div>
      <span className="quiet" style={{ fontSize: 12 }}>
        Delays are tried up to {(1000 * props.mostDelayS).toFixed(0)} ms to either side.
      </span>
    </>
  );
}
