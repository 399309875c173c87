import { t } from '@lingui/core/macro';
import type { View } from '../ink/view';
import { DragEdge } from './DragEdge';
import type { TableTyping } from './tableTyping';

/** The grips lie outside of the table, so that they cover no cell; pixels. */
const gripOff = 24;

/** The edges of the row and the column in which one types: dragged, or moved by the arrow keys, they make them higher or wider. */
export function TableEdges({ typed, view }: { typed: TableTyping; view: View }) {
  const { shown: table, cell } = typed;
  if (!table || !cell) return null;
  const [a, b, c, d, e, f] = table.place;
  const { scale, x, y } = view;
  // Of one that was turned the edges are not where a level grip would be.
  if (Math.abs(b) > 1e-6 || Math.abs(c) > 1e-6) return null;
  const { lastRow: row, lastColumn: column } = cell;
  const [wide, high] = [t`Width of column ${column + 1}`, t`Height of row ${row + 1}`];
  const [right, below] = [table.across[column + 1]!, table.down[row + 1]!];
  return (
    <div className="pointer-events-none absolute inset-0">
      <DragEdge
        upright
        label={wide}
        title={t`${wide}: drag it, or press for as much as is needed`}
        testId="column-edge"
        x={(e + right * a) * scale + x}
        y={f * scale + y - gripOff}
        onPressed={() => typed.do('fit', [column])}
        onMoved={(by) => typed.do('width', [column, Math.round(right - table.across[column]! + by / (a * scale))])}
      />
      <DragEdge
        label={high}
        title={t`${high}: drag it, or press for as much as is needed`}
        testId="row-edge"
        x={e * scale + x - gripOff}
        y={(f + below * d) * scale + y}
        onPressed={() => typed.do('height', [row, 0])}
        onMoved={(by) => typed.do('height', [row, Math.round(below - table.down[row]! + by / (d * scale))])}
      />
    </div>
  );
}
