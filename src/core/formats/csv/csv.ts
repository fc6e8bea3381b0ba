/** Tables as text. Source: RFC 4180 (commas, CRLF, quotes doubled inside quotes). */
export type Cell = string | number | null;

export const csvOf = (head: readonly string[], rows: readonly (readonly Cell[])[]): string =>
  [head, ...rows].map((row) => `${row.map(cellText).join(',')}\r\n`).join('');

/** A cell that a spreadsheet would take for a formula is led by an apostrophe, as its makers advise. */
function cellText(cell: Cell): string {
  if (cell === null) return '';
  if (typeof cell === 'number') return String(cell);
  const text = /^[=+\-@\t\r]/.test(cell) ? `'${cell}` : cell;
  return /[",\r\n]/.test(text) ? `"${text.replace(/"/g, '""')}"` : text;
}
