import { mostPasted } from './pasted';

/** Cells on the clipboard, as spreadsheets and web pages put them there: rows on lines, parted by tabs. Empty where there are none. */
export function cellsIn(data: DataTransfer | null): string {
  const plain = data?.getData('text/plain') ?? '';
  if (plain.includes('\t')) return plain;
  const html = data?.getData('text/html') ?? '';
  return html.length <= mostPasted && /<table[\s>]/i.test(html) ? cellsOf(html) : '';
}

/** The cells of the first table in HTML. Nothing of it is run, fetched or shown. */
function cellsOf(html: string): string {
  const table = new DOMParser().parseFromString(html, 'text/html').querySelector('table');
  const rows = [...(table?.rows ?? [])].map((row) =>
    [...row.cells].flatMap((cell) => [
      quoted((cell.textContent ?? '').trim().replace(/\s+/g, ' ')),
      // What spans columns leaves the others empty.
      ...Array.from({ length: Math.min(cell.colSpan, mostColumns) - 1 }, () => ''),
    ]),
  );
  return rows.map((row) => row.join('\t')).join('\n');
}

const mostColumns = 40;

const quoted = (cell: string): string => (cell.startsWith('"') ? `"${cell.replaceAll('"', '""')}"` : cell);
