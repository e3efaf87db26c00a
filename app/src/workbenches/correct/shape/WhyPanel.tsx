import { memo } from 'react';
import { formatHz } from '../../../charts/chartMath';
import type { Why } from './why';

/** At the frequency under the cursor: as found, spread, excess phase, what the design did, and what limited it. */
export const WhyPanel = memo(function WhyPanel({ why }: { why: Why | null }) {
  return (
    <section aria-label="Why" style={{ borderTop: '1px solid var(--line)', paddingTop: 8 }}>
      {why ? (
        <>
          <b>Why, at {formatHz(why.frequency)}</b>
          <p style={{ margin: '2px 0 4px' }}>{why.sentence}</p>
          <table className="plain" style={{ fontSize: 12.5 }}>
            <tbody>
              {why.rows.map(([name, value]) => (
                <tr key={name}>
                  <td style={{ padding: '1px 0' }} className="quiet">
                    {name}
                  </td>
                  <td style={{ padding: '1px 0' }} className="num mono">
                    {value}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      ) : (
        <span className="quiet">
          Why is it so? Point at a place in the plot, or move over it with the arrow keys.
        </span>
      )}
    </section>
  );
});
