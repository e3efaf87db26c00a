import { saveFile } from './saveFile';
import { csvOf, tsvOf, type TableData } from './tableText';
import { notify, notifyProblem } from './notify';

/** Puts a table on the clipboard as tab-separated text, and says so. */
export const copyTable = (table: TableData): void =>
  void navigator.clipboard.writeText(tsvOf(table)).then(
    () => notify(`${table.title}: copied, ${table.rows.length} rows.`),
    () => notifyProblem('The browser does not allow copying here. Save the table as CSV instead.'),
  );

/** Saves a table as CSV, under its title. */
export const saveTable = (table: TableData): void =>
  saveFile(`${table.title.replace(/[^\p{L}\p{N}]+/gu, '-')}.csv`, csvOf(table), 'text/csv');
