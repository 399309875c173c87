import { type PointerEvent as ReactPointerEvent, useRef, useState } from 'react';

/** By how many pixels an arrow key moves an edge. */
const keyStep = 8;

interface DragEdgeProps {
  label: string;
  title: string;
  testId: string;
  /** Whether it is one at a side, and not above or below. */
  upright?: boolean;
  /** Where the middle of the grip is, pixels. */
  x: number;
  y: number;
  onMoved: (by: number) => void;
  /** It was pressed and not moved. Where there is nothing to that, its keys lead nowhere either. */
  onPressed?: () => void;
}

/** The grip of an edge, which is dragged, or moved by arrow keys. */
export function DragEdge({ label, title, testId, upright = false, x, y, onMoved, onPressed }: DragEdgeProps) {
  const from = useRef<number>(undefined);
  const [by, setBy] = useState(0);
  const along = (event: ReactPointerEvent) => (upright ? event.clientX : event.clientY);
  const done = () => {
    from.current = undefined;
    setBy(0);
  };
  const keys: Record<string, number> = upright
    ? { ArrowLeft: -keyStep, ArrowRight: keyStep }
    : { ArrowUp: -keyStep, ArrowDown: keyStep };
  return (
    <button
      type="button"
      tabIndex={onPressed ? 0 : -1}
      aria-label={label}
      title={title}
      data-testid={testId}
      className={`pointer-events-auto absolute grid size-11 touch-none place-items-center ${upright ? 'cursor-ew-resize' : 'cursor-ns-resize'}`}
      style={upright ? { left: x + by - 22, top: y - 22 } : { left: x - 22, top: y + by - 22 }}
      onPointerDown={(event) => {
        event.preventDefault();
        from.current = along(event);
        event.currentTarget.setPointerCapture(event.pointerId);
      }}
      onPointerMove={(event) => from.current !== undefined && setBy(along(event) - from.current)}
      onPointerUp={(event) => {
        const moved = from.current === undefined ? undefined : along(event) - from.current;
        if (moved === 0) onPressed?.();
        else if (moved !== undefined) onMoved(moved);
        done();
      }}
      onPointerCancel={done}
      onKeyDown={(event) => {
        if (event.key === 'Enter') onPressed?.();
        const step = keys[event.key];
        if (!step) return;
        event.preventDefault();
        onMoved(step);
      }}
    >
      <span className={`rounded-full border border-primary bg-base-100 ${upright ? 'h-7 w-2' : 'h-2 w-7'}`} />
    </button>
  );
}
