import { NumberField } from '../../../parts/NumberField';
import { MOST_FROM_SET, type ResponseSet } from './responseSets';

interface Props {
  set: ResponseSet;
  fileName: string;
  onChange: (set: ResponseSet) => void;
}

/** A set of responses before it is imported: which of them are wanted. */
export function SetFields({ set, fileName, onChange }: Props) {
  const { responses, from, to } = set;
  const last = responses.length;
  const named = (n: number) => responses[n - 1]?.name || 'the only one';
  const field = { unit: '', digits: 0, step: 1, width: 76 };
  return (
    <div style={{ display: 'flex', gap: 12, alignItems: 'center', flexWrap: 'wrap' }}>
      <span>
        A set of {last} {last === 1 ? 'response' : 'responses'}. Take
      </span>
      <NumberField
        {...field}
        label={`First response of ${fileName}`}
        value={from}
        min={1}
        max={last}
        onChange={(next) =>
          onChange({ ...set, from: next, to: Math.min(last, next + MOST_FROM_SET - 1, Math.max(to, next)) })
        }
      />
      to
      <NumberField
        {...field}
        label={`Last response of ${fileName}`}
        value={to}
        min={from}
        max={Math.min(last, from + MOST_FROM_SET - 1)}
        onChange={(next) => onChange({ ...set, to: next })}
      />
      <span className="quiet">
        From {named(from)} to {named(to)}. {last > MOST_FROM_SET ? `Up to ${MOST_FROM_SET} at once.` : ''}
      </span>
    </div>
  );
}
