/** One figure or word of a table's cell. */
export type Cell = string | number;

/** A table of the report. */
export function ReportTable({ head, rows }: { head: string[]; rows: Cell[][] }) {
  return (
    <table>
      <thead>
        <tr>
          {head.map((cell) => (
            <th key={cell}>{cell}</th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((cells, r) => (
          <tr key={r}>
            {cells.map((cell, c) => (
              <td key={c}>{cell}</td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
