import { t } from '@lingui/core/macro';
import { useRef } from 'react';
import { toPage, toScreen, type View } from '../ink/view';
import { Grip } from '../../ui/Grip';
import { DragEdge } from './DragEdge';
import type { TableTyping } from './tableTyping';

/** The grips lie outside of the table, so that they cover no cell; pixels. */
const gripOff = 24;

/** The edges of the row and the column in which one types: dragged, or moved by the arrow keys, they make them higher or wider. */
export function TableEdges({ typed, view }: { typed: TableTyping; view: View }) {
  const { shown: table, cell, taken, takesSeveral } = typed;
  if (!table || !cell || !taken) return null;
  const [a, b, c, d, e, f] = table.place;
  const { scale, x, y } = view;
  // Of one that was turned the edges are not where a level grip would be.
  if (Math.abs(b) > 1e-6 || Math.abs(c) > 1e-6) return null;
  const { lastRow: row, lastColumn: column } = cell;
  const [wide, high] = [t`Width of column ${column + 1}`, t`Height of row ${row + 1}`];
  const [right, below] = [table.across[column + 1]!, table.down[row + 1]!];
  const box = toScreen(
    [
      e + table.across[taken.column]! * a,
      f + table.down[taken.row]! * d,
      e + table.across[taken.lastColumn + 1]! * a,
      f + table.down[taken.lastRow + 1]! * d,
    ],
    view,
  );
  return (
    <div className="pointer-events-none absolute inset-0">
      {takesSeveral && (
        <div
          data-testid="cells-taken"
          aria-hidden="true"
          className="absolute border-2 border-primary bg-primary/10"
          style={box}
        />
      )}
      <CellsGrip typed={typed} view={view} at={{ left: box.left + box.width, top: box.top + box.height }} />
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

/** The grip at the corner of a cell: dragged over others, or moved by the arrow keys, it takes them too. */
function CellsGrip({ typed, view, at }: { typed: TableTyping; view: View; at: { left: number; top: number } }) {
  const isHeld = useRef(false);
  const end = () => (isHeld.current = false);
  return (
    <Grip
      label={t`Take several cells`}
      data-testid="cells-grip"
      className="pointer-events-auto absolute grid size-11 -translate-x-1/2 -translate-y-1/2 cursor-nwse-resize place-items-center"
      style={at}
      onStep={(right, down) => typed.extend(right, down)}
      onPointerDown={(event) => {
        event.preventDefault();
        isHeld.current = true;
        event.currentTarget.setPointerCapture(event.pointerId);
      }}
      onPointerMove={(event) => {
        if (!isHeld.current) return;
        const { x, y } = toPage(event, event.currentTarget.parentElement!.getBoundingClientRect(), view);
        typed.takeUpTo(x, y);
      }}
      onPointerUp={end}
      onPointerCancel={end}
    >
      <span className="size-3 rounded-full border-2 border-primary bg-base-100" />
    </Grip>
  );
}
