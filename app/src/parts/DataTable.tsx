import { Button } from '@mantine/core';
import { copyTable, saveTable } from '../services/takeTable';
import type { TableData } from '../services/tableText';

/** A table of figures that copies as tab-separated text and saves as CSV. */
export function DataTable({ data, note }: { data: TableData; note?: string }) {
  return (
    <section className="card" aria-label={data.title} style={{ overflow: 'auto' }}>
      <h2>
        {data.title}
        <span style={{ display: 'flex', gap: 6 }}>
          {note ? <small>{note}</small> : null}
          <Button size="compact-xs" variant="default" onClick={() => copyTable(data)}>
            Copy
          </Button>
          <Button size="compact-xs" variant="default" onClick={() => saveTable(data)}>
            Save CSV
          </Button>
        </span>
      </h2>
      <table className="figures">
        <thead>
          <tr>
            {data.columns.map((c) => (
              <th key={c} scope="col">
                {c}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {data.rows.map((row) => (
            <tr key={row[0]}>
              {row.map((cell, i) =>
                i === 0 ? (
                  <th key={data.columns[i]} scope="row">
                    {cell}
                  </th>
                ) : (
                  <td key={data.columns[i]} className="mono">
                    {cell}
                  </td>
                ),
              )}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
