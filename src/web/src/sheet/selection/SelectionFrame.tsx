import { Grip } from '../../ui/Grip';
import { t } from '@lingui/core/macro';
import { ArrowClockwiseIcon } from '@phosphor-icons/react';
import { type PointerEvent as ReactPointerEvent, useRef, useState } from 'react';
import type { Area } from '../../model/drawing';
import { toScreen, type View } from '../ink/view';
import { mapped, resting, scaledAbout, shifted, turnedAbout } from './matrix';
import { type Reshaping, reshapings, type Selection } from './useSelection';
import { identity, type Matrix } from '../ink/floatInk';

interface SelectionFrameProps {
  selection: Selection;
  view: View;
  /** A shape of its own has handles of its own instead of the frame's. */
  handles: boolean;
  /** Held at the upper or lower edge of the desk: −1 or 1. */
  onEdge: (by: number) => void;
  /** Where the toolbar lies. */
  barSide: BarSide;
  /** Where the desk lies on the screen. */
  edgeOf: () => DOMRect;
  /** A short press within the frame: on a thing it adds it or takes it out, on bare paper it lets go of all. */
  onTap: (clientX: number, clientY: number) => void;
  /** Whether a pointer that comes down here is to write; it is then passed on. */
  writes: (event: PointerEvent) => boolean;
}

const pad = 6;
/** A press that moves less is a tap, pixels. */
const tapWithin = 6;
/** The grip to turn by lies so far off the corner that the toolbar leaves free, pixels. */
const turnOff = 34;
/** The toolbar is so high; where it is narrow, as on a phone, it has two rows. Pixels. */
const barHigh = 56;
const narrow = 590;
/** So far from the frame that its grips are free, pixels. */
const barOff = 44;
const leastScale = 0.02;
/** So near the edge, and so long, takes what is held to the next page. */
const edgeWithin = 28;
const edgeAfter = 700;

type GripName = 'move' | 'turn' | `${-1 | 0 | 1},${-1 | 0 | 1}`;
const grips: GripName[] = ['-1,-1', '0,-1', '1,-1', '-1,0', '1,0', '-1,1', '0,1', '1,1'];
const keyStep = 100;
const gripWords: Record<string, string> = {
  '-1,-1': t`Scale by the upper left corner`,
  '0,-1': t`Scale by the upper edge`,
  '1,-1': t`Scale by the upper right corner`,
  '-1,0': t`Scale by the left edge`,
  '1,0': t`Scale by the right edge`,
  '-1,1': t`Scale by the lower left corner`,
  '0,1': t`Scale by the lower edge`,
  '1,1': t`Scale by the lower right corner`,
};
const cursors: Record<string, string> = {
  '-1,-1': 'nwse-resize',
  '1,1': 'nwse-resize',
  '1,-1': 'nesw-resize',
  '-1,1': 'nesw-resize',
  '0,-1': 'ns-resize',
  '0,1': 'ns-resize',
  '-1,0': 'ew-resize',
  '1,0': 'ew-resize',
};

/** A dashed frame round what was taken: dragged inside it moves, at its grips it scales, at its head it turns. */
export function SelectionFrame({
  selection,
  view,
  handles,
  barSide,
  onEdge,
  edgeOf,
  onTap,
  writes,
}: SelectionFrameProps) {
  const [matrix, setMatrix] = useState<Matrix>();
  const [angle, setAngle] = useState<number>();
  const drag = useRef<{
    grip: GripName;
    x: number;
    y: number;
    now: Matrix;
    timer?: ReturnType<typeof setTimeout> | undefined;
    edge: number;
  }>(undefined);
  const { area, items } = selection.taken;
  const shown = matrix && drag.current?.grip !== 'turn' ? mapped(area, matrix) : area;
  const box = toScreen(shown, view);
  const isInk = items.length > 0;
  const { locked, reshaping } = selection.about;

  const begin = (grip: GripName) => (event: ReactPointerEvent) => {
    if (writes(event.nativeEvent)) return;
    event.stopPropagation();
    (event.target as Element).setPointerCapture(event.pointerId);
    drag.current = { grip, x: event.clientX, y: event.clientY, now: identity, edge: 0 };
  };
  const move = (event: ReactPointerEvent) => {
    const held = drag.current;
    if (!held || !isInk || locked) return;
    held.now = matrixOf(
      held.grip,
      area,
      (event.clientX - held.x) / view.scale,
      (event.clientY - held.y) / view.scale,
      event.shiftKey && reshaping === reshapings.freely,
      { x: (held.x - edgeOf().left - view.x) / view.scale, y: (held.y - edgeOf().top - view.y) / view.scale },
    );
    if (held.grip === 'turn') setAngle(Math.round((Math.atan2(held.now[1], held.now[0]) * 180) / Math.PI));
    setMatrix(held.now);
    selection.preview(held.now);
    if (held.grip === 'move') watchEdge(event.clientY);
  };
  const watchEdge = (y: number) => {
    const held = drag.current!;
    const { top, bottom } = edgeOf();
    const edge = y > bottom - edgeWithin ? 1 : y < top + edgeWithin ? -1 : 0;
    if (edge === held.edge) return;
    held.edge = edge;
    clearTimeout(held.timer);
    if (edge !== 0)
      held.timer = setTimeout(() => {
        drag.current = undefined;
        setMatrix(undefined);
        selection.preview(undefined);
        onEdge(edge);
      }, edgeAfter);
  };
  const end = (event: ReactPointerEvent) => {
    const held = drag.current;
    drag.current = undefined;
    clearTimeout(held?.timer);
    setMatrix(undefined);
    setAngle(undefined);
    if (!held) return;
    const isTap = Math.hypot(event.clientX - held.x, event.clientY - held.y) < tapWithin;
    if (held.grip === 'move' && isTap && event.type === 'pointerup') {
      selection.preview(undefined);
      return onTap(event.clientX, event.clientY);
    }
    const [a, b, c, d, e, f] = held.now;
    if (a === 1 && b === 0 && c === 0 && d === 1) {
      if (Math.round(e) !== 0 || Math.round(f) !== 0) selection.move(e, f);
      else selection.preview(undefined);
    } else selection.transform(held.now);
  };
  /** By keys: a millimetre, or a degree. */
  const step = (grip: GripName, right: number, down: number) => {
    const [left, top, farRight, bottom] = area;
    selection.transform(
      grip === 'turn'
        ? turnedAbout((left + farRight) / 2, (top + bottom) / 2, right + down)
        : matrixOf(grip, area, right * keyStep, down * keyStep, false, { x: 0, y: 0 }),
    );
  };
  const listen = { onPointerMove: move, onPointerUp: end, onPointerCancel: end };
  return (
    <>
      <div
        data-testid="selection-frame"
        className={`absolute rounded-sm border-[1.5px] border-dashed border-[#4f7388] ${isInk ? 'pointer-events-auto cursor-move touch-none' : ''}`}
        style={{ left: box.left - pad, top: box.top - pad, width: box.width + 2 * pad, height: box.height + 2 * pad }}
        onPointerDown={begin('move')}
        {...listen}
      />
      {isInk &&
        !locked &&
        handles &&
        gripsFor(reshaping).map((grip) => {
          const [gx, gy] = grip.split(',').map(Number) as [number, number];
          // On a small selection the grips in the middles would lie over each other.
          if ((gx === 0 && box.width < 70) || (gy === 0 && box.height < 70)) return null;
          return (
            <Grip
              key={grip}
              label={gripWords[grip]!}
              data-testid="grip"
              data-grip={grip}
              onStep={(right, down) => step(grip, right, down)}
              className="pointer-events-auto absolute grid size-11 -translate-x-1/2 -translate-y-1/2 place-items-center"
              style={{
                left: box.left - pad + ((gx + 1) / 2) * (box.width + 2 * pad) + gx * 8,
                top: box.top - pad + ((gy + 1) / 2) * (box.height + 2 * pad) + gy * 8,
                cursor: cursors[grip],
              }}
              onPointerDown={begin(grip)}
              {...listen}
            >
              <span className="size-3 rounded-sm border-[1.5px] border-[#4f7388] bg-paper" />
            </Grip>
          );
        })}
      {isInk && !locked && reshaping !== reshapings.movedOnly && (
        <Grip
          label={t`Turn`}
          data-testid="turn-grip"
          onStep={(right, down) => step('turn', right, down)}
          className="pointer-events-auto absolute grid size-11 -translate-x-1/2 cursor-grab place-items-center text-[#4f7388]"
          style={{
            left: box.left + box.width + pad + turnOff,
            top: barSide === 'below' ? box.top - pad - turnOff : box.top + box.height - pad,
          }}
          onPointerDown={begin('turn')}
          {...listen}
        >
          <ArrowClockwiseIcon size={22} />
          {angle !== undefined && (
            <span className="absolute left-9 rounded bg-base-100 px-1.5 text-[13px] text-base-content">{angle}°</span>
          )}
        </Grip>
      )}
    </>
  );
}

/** The corners keep the proportion, the sides do not. */
function gripsFor(reshaping: Reshaping): GripName[] {
  if (reshaping === reshapings.movedOnly) return [];
  return reshaping === reshapings.freely ? grips : grips.filter((grip) => !grip.includes('0'));
}

export type BarSide = 'below' | 'above' | 'over';

/** The toolbar lies below or above what was taken, where there is more room; only where what was taken fills the desk, over its head. */
export function barSideOf(area: Area, view: View, { width, height }: { width: number; height: number }): BarSide {
  const high = barHighOn(width) + barOff;
  const below = height - (area[3] * view.scale + view.y);
  const above = area[1] * view.scale + view.y;
  if (Math.max(below, above) < high) return 'over';
  return below >= Math.min(above, unfoldedHigh) ? 'below' : 'above';
}

const barHighOn = (width: number) => (width < narrow ? 2 * barHigh : barHigh);
/** With so much room below, all that unfolds lies there without scrolling, pixels. */
const unfoldedHigh = 380;
/** What lies at the desk's edge takes so much of its height at most. */
const mostDocked = 0.6;
/** The bar of a formula is so wide. */
const dockedWide = 626;

/** Where the toolbar begins from the upper edge, or with 'above' ends from the lower one, and how high it and what unfolds may be; pixels. */
export function barPlace(
  side: BarSide,
  { top, height }: { top: number; height: number },
  desk: { width: number; height: number },
): { top: number; maxHeight: number } | { bottom: number; maxHeight: number } {
  const least = 8;
  const high = barHighOn(desk.width);
  if (side === 'above') {
    const bottom = Math.min(desk.height - high - least, Math.max(least, desk.height - top + barOff));
    return { bottom, maxHeight: desk.height - bottom - least };
  }
  // Over what was taken there must be room for what unfolds, too.
  const most = desk.height - least - (side === 'over' ? unfoldedHigh : high);
  const from = Math.max(least, Math.min(side === 'below' ? top + height + barOff : top + least, most));
  return { top: from, maxHeight: desk.height - from - least };
}

/** Where there is too little room at its side of a toolbar, what unfolds lies at the other, and the toolbar stays where it is. */
export function unfoldedPlace(
  place: ReturnType<typeof barPlace>,
  desk: { width: number; height: number },
): ReturnType<typeof barPlace> {
  if (place.maxHeight >= unfoldedHigh) return place;
  if ('bottom' in place) {
    const top = desk.height - place.bottom - barHighOn(desk.width);
    const maxHeight = desk.height - top - 8;
    return maxHeight > place.maxHeight ? { top, maxHeight } : place;
  }
  const foot = place.top + barHighOn(desk.width);
  return foot > place.maxHeight ? { bottom: desk.height - foot, maxHeight: foot - 8 } : place;
}

/** Whether what unfolds lies at the other side of its toolbar, where what was taken is. */
export const liesOver = (unfolded: ReturnType<typeof barPlace>, bar: ReturnType<typeof barPlace>): boolean =>
  'bottom' in unfolded !== 'bottom' in bar;

/** Where a bar lies that keeps its place: at which edge of the desk, and from where on, where it lies beside what was taken; pixels. */
export interface Dock {
  edge: 'top' | 'bottom';
  left?: number;
}

/** Right of what was taken where there is room, else at the edge that lies further off. */
export function dockBeside(
  { left, top, width }: { left: number; top: number; width: number },
  desk: { width: number; height: number },
): Dock {
  const edge = top > desk.height / 2 ? 'top' : 'bottom';
  const from = left + width + barOff;
  return desk.width - from >= dockedWide ? { edge: 'top', left: from } : { edge };
}

/** The same on a desk that has become narrower meanwhile. */
export const dockOn = (dock: Dock, desk: { width: number }): Dock =>
  dock.left !== undefined && desk.width - dock.left < dockedWide ? { edge: 'bottom' } : dock;

export function dockedPlace({ edge, left }: Dock, desk: { height: number }): ReturnType<typeof barPlace> {
  const maxHeight = left === undefined ? Math.max(unfoldedHigh, desk.height * mostDocked) : desk.height - 16;
  return edge === 'top' ? { top: 8, maxHeight } : { bottom: 8, maxHeight };
}

function matrixOf(
  grip: GripName,
  [left, top, right, bottom]: Area,
  dx: number,
  dy: number,
  /** Whether each side goes its own way at a corner. */
  uneven: boolean,
  /** Where the hand took hold, on the page. */
  held: { x: number; y: number },
): Matrix {
  if (grip === 'move') return shifted(dx, dy);
  const [cx, cy] = [(left + right) / 2, (top + bottom) / 2];
  if (grip === 'turn') {
    const [gx, gy] = [held.x - cx, held.y - cy];
    const from = Math.atan2(gy, gx);
    const to = Math.atan2(gy + dy, gx + dx);
    return turnedAbout(cx, cy, resting(((to - from) * 180) / Math.PI));
  }
  const [gx, gy] = grip.split(',').map(Number) as [number, number];
  const [wide, high] = [Math.max(right - left, 1), Math.max(bottom - top, 1)];
  let sx = gx === 0 ? 1 : least(1 + (gx * dx) / wide);
  let sy = gy === 0 ? 1 : least(1 + (gy * dy) / high);
  // Corners keep the proportion unless Shift is held.
  if (gx !== 0 && gy !== 0 && !uneven)
    sx = sy = least(1 + (gx * dx * wide + gy * dy * high) / (wide * wide + high * high));
  return scaledAbout(gx < 0 ? right : left, gy < 0 ? bottom : top, sx, sy);
}

function least(scale: number): number {
  return Math.max(scale, leastScale);
}
