import { copyText } from './copyText';
import { saveFile } from './saveFile';
import { csvOf, tsvOf, type TableData } from './tableText';

/** Puts a table on the clipboard as tab-separated text, and says so. */
export const copyTable = (table: TableData): void =>
  void copyText(
    tsvOf(table),
    `${table.title}: copied, ${table.rows.length} rows.`,
    'Save the table as CSV instead.',
  );

/** Saves a table as CSV, under its title. */
export const saveTable = (table: TableData): void =>
  saveFile(`${table.title.replace(/[^\p{L}\p{N}]+/gu, '-')}.csv`, csvOf(table), 'text/csv');
