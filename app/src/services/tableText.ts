import Papa from 'papaparse';

/** A table as it is shown, copied and saved. */
export interface TableData {
  title: string;
  columns: string[];
  rows: string[][];
}

/** Figures as other programs read them: a true minus sign becomes a plain one. */
const plain = (cell: string) => cell.replaceAll('\u2212', '-');

/** Tab-separated text, as spreadsheets paste it. */
export const tsvOf = ({ columns, rows }: TableData): string =>
  [columns, ...rows].map((row) => row.map((c) => plain(c).replace(/[\t\n]/g, ' ')).join('\t')).join('\n');

/** Comma-separated values (RFC 4180). */
export const csvOf = ({ columns, rows }: TableData): string =>
  `${Papa.unparse([columns, ...rows.map((row) => row.map(plain))])}\r\n`;
