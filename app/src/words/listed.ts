/** Names in a row: "A", "A and B", "A, B and C"; of many the first ones, and how many more. */
export function listed(names: readonly string[], most = 6): string {
  const shown = names.length > most ? [...names.slice(0, most), `${names.length - most} more`] : names;
  return shown.length < 2 ? (shown[0] ?? '') : `${shown.slice(0, -1).join(', ')} and ${shown.at(-1)}`;
}
