import { t } from '@lingui/core/macro';
import { type PointerEvent as ReactPointerEvent, useRef, useState } from 'react';
import type { View } from '../ink/view';
import type { Typing } from './typing';

/** The edges of the row and the column in which one types: dragged, or moved by the arrow keys, they make them higher or wider. */
export function TableEdges({ typing, view }: { typing: Typing; view: View }) {
  const { table, cell } = typing;
  if (!table || !cell) return null;
  const [a, b, c, d, e, f] = table.place;
  const { scale, x, y } = view;
  // Of one that was turned the edges are not where a level grip would be.
  if (Math.abs(b) > 1e-6 || Math.abs(c) > 1e-6) return null;
  const { lastRow: row, lastColumn: column } = cell;
  const [right, below] = [table.across[column + 1]!, table.down[row + 1]!];
  return (
    <div className="pointer-events-none absolute inset-0">
      <Edge
        upright
        label={t`Width of column ${column + 1}`}
        testId="column-edge"
        left={(e + right * a) * scale + x}
        top={f * scale + y}
        onMoved={(by) =>
          typing.toTable('width', [column, Math.round(right - table.across[column]! + by / (a * scale))])
        }
      />
      <Edge
        label={t`Height of row ${row + 1}`}
        testId="row-edge"
        left={e * scale + x}
        top={(f + below * d) * scale + y}
        onMoved={(by) => typing.toTable('height', [row, Math.round(below - table.down[row]! + by / (d * scale))])}
      />
    </div>
  );
}

/** By how many pixels an arrow key moves an edge. */
const keyStep = 8;

interface EdgeProps {
  label: string;
  testId: string;
  /** Of a column, and not of a row. */
  upright?: boolean;
  left: number;
  top: number;
  onMoved: (by: number) => void;
}

/** The grip of an edge, outside of the table, so that it covers no cell. */
function Edge({ label, testId, upright = false, left, top, onMoved }: EdgeProps) {
  const from = useRef<number>(undefined);
  const [by, setBy] = useState(0);
  const along = (event: ReactPointerEvent) => (upright ? event.clientX : event.clientY);
  const end = (event: ReactPointerEvent) => {
    if (from.current !== undefined && along(event) !== from.current) onMoved(along(event) - from.current);
    from.current = undefined;
    setBy(0);
  };
  const keys: Record<string, number> = upright
    ? { ArrowLeft: -keyStep, ArrowRight: keyStep }
    : { ArrowUp: -keyStep, ArrowDown: keyStep };
  return (
    <button
      type="button"
      aria-label={label}
      title={label}
      data-testid={testId}
      className={`pointer-events-auto absolute grid size-11 touch-none place-items-center ${upright ? 'cursor-ew-resize' : 'cursor-ns-resize'}`}
      style={upright ? { left: left + by - 22, top: top - 46 } : { left: left - 46, top: top + by - 22 }}
      onPointerDown={(event) => {
        event.preventDefault();
        from.current = along(event);
        event.currentTarget.setPointerCapture(event.pointerId);
      }}
      onPointerMove={(event) => from.current !== undefined && setBy(along(event) - from.current)}
      onPointerUp={end}
      onPointerCancel={() => {
        from.current = undefined;
        setBy(0);
      }}
      onKeyDown={(event) => {
        const step = keys[event.key];
        if (!step) return;
        event.preventDefault();
        onMoved(step);
      }}
    >
      <span className={`rounded-full border border-primary bg-base-100 ${upright ? 'h-6 w-2' : 'h-2 w-6'}`} />
    </button>
  );
}
