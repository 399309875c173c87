import { t } from '@lingui/core/macro';
import { type PointerEvent as ReactPointerEvent, useEffect, useMemo, useRef, useState } from 'react';
import type { PlotPath, PlotRange } from '../../../core/plotBridge';
import type { ShownPlot } from '../../../core/thingBridge';
import { useWorkspace } from '../../../data/useWorkspace';
import type { OpenDocument } from '../../../sync/openDocument';
import { arrowWays } from '../../../ui/Grip';
import { ownPlace, toPage, type View } from '../../ink/view';
import { useItemFields } from '../../hand/useItemFields';
import { range as rangeField } from './plotFields';

interface Place {
  x: number;
  y: number;
}

/** An arrow key moves what is shown by so large a share, and a key of size makes it so many times as much. */
const keyStep = 0.1;
export const zoomStep = 1.5;
/** So much of a wheel's way doubles it, pixels. */
const wheelDoubles = 360;
/** So long after the wheel was last turned it is written, ms. */
const wheelRests = 350;
/** Fingers that lie nearer than this to each other in one direction stretch nothing in it, a share of the plane. */
const apart = 0.08;

/**
 * The plane of a plot under the hand, while its panel is open: dragged it shows what lies beside, by two fingers or the wheel more or less of it. What it would show
 * is drawn over it until the hand lets go; that is one step.
 */
export function PlotPlane({
  page,
  item,
  plot,
  view,
}: {
  page: OpenDocument;
  item: string;
  plot: ShownPlot;
  view: View;
}) {
  const { core } = useWorkspace();
  const { set } = useItemFields(page, item, '');
  const plane = useRef<HTMLButtonElement>(null);
  const [wished, setWished] = useState<PlotRange>();
  // Until the page has it, what was let go of stays as it was last drawn.
  const [stands, setStands] = useState(plot.range);
  if (stands !== plot.range) {
    setStands(plot.range);
    if (wished) setWished(undefined);
  }
  const now = wished ?? plot.range;
  const latest = useRef<PlotRange>(now);
  latest.current = now;
  const held = useRef(new Map<number, Place>());
  /** Where the fingers were, and what was shown, when there was one more or one less of them. */
  const begun = useRef<{ range: PlotRange; at: Place[] }>(undefined);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const paths = useMemo(
    () => (wished ? (JSON.parse(core.PlotBridge.Drawn(page.handle, item, wished)) as PlotPath[]) : []),
    [core, page, item, wished],
  );
  const [left, top, right, bottom] = plot.plane;
  const [a, b, c, d, e, f] = plot.place;
  const { scale, x, y } = view;

  const show = (range: PlotRange) => {
    latest.current = range;
    setWished(range);
  };
  const write = (range: PlotRange) => {
    const text = core.PlotBridge.Text(range);
    if (text === core.PlotBridge.Text(plot.range)) setWished(undefined);
    else set(rangeField, text);
  };
  /** Where a pointer is on the plane, as shares from the left and from below. */
  const shareAt = (event: { clientX: number; clientY: number }): Place => {
    const at = ownPlace(plot.place, toPage(event, plane.current!.parentElement!.getBoundingClientRect(), view));
    return { x: (at.x - left) / (right - left), y: (bottom - at.y) / (bottom - top) };
  };
  const rebase = () => {
    begun.current = held.current.size > 0 ? { range: latest.current, at: [...held.current.values()] } : undefined;
  };
  const down = (event: ReactPointerEvent) => {
    if (event.button !== 0 || held.current.size >= 2) return;
    event.stopPropagation();
    event.preventDefault();
    plane.current!.setPointerCapture(event.pointerId);
    held.current.set(event.pointerId, shareAt(event));
    rebase();
  };
  const move = (event: ReactPointerEvent) => {
    if (!held.current.has(event.pointerId) || !begun.current) return;
    held.current.set(event.pointerId, shareAt(event));
    const [one, other] = [...held.current.values()];
    const { range, at } = begun.current;
    if (!one || !at[0]) return;
    if (!other || !at[1]) return show(core.PlotBridge.Moved(range, at[0].x - one.x, at[0].y - one.y));
    // What lay between the fingers lies between them still.
    const middle = (p: Place, q: Place): Place => ({ x: (p.x + q.x) / 2, y: (p.y + q.y) / 2 });
    const times = (from: number, to: number) => (from < apart || to < apart ? 1 : from / to);
    const [before, after] = [middle(at[0], at[1]), middle(one, other)];
    const moved = core.PlotBridge.Moved(range, before.x - after.x, before.y - after.y);
    show(
      core.PlotBridge.Widened(
        moved,
        times(Math.abs(at[0].x - at[1].x), Math.abs(one.x - other.x)),
        times(Math.abs(at[0].y - at[1].y), Math.abs(one.y - other.y)),
        after.x,
        after.y,
      ),
    );
  };
  const up = (event: ReactPointerEvent) => {
    if (!held.current.delete(event.pointerId)) return;
    rebase();
    if (held.current.size === 0 && latest.current !== plot.range) write(latest.current);
  };
  const turn = useRef<(event: WheelEvent) => void>(undefined);
  turn.current = (event) => {
    event.preventDefault();
    event.stopPropagation();
    const { x: share, y: height } = shareAt(event);
    const times = 2 ** (event.deltaY / wheelDoubles);
    show(core.PlotBridge.Widened(latest.current, times, times, share, height));
    clearTimeout(timer.current);
    timer.current = setTimeout(() => write(latest.current), wheelRests);
  };
  // React listens to wheels in a way that cannot keep the sheet from moving.
  useEffect(() => {
    const element = plane.current;
    if (!element) return;
    const listen = (event: WheelEvent) => turn.current?.(event);
    element.addEventListener('wheel', listen, { passive: false });
    return () => element.removeEventListener('wheel', listen);
  }, []);
  const key = (event: React.KeyboardEvent) => {
    const way = arrowWays[event.key];
    const size = event.key === '+' ? 1 / zoomStep : event.key === '-' ? zoomStep : undefined;
    if (!way && !size) return;
    event.preventDefault();
    event.stopPropagation();
    write(
      way
        ? core.PlotBridge.Moved(plot.range, way[0] * keyStep, -way[1] * keyStep)
        : core.PlotBridge.Widened(plot.range, size!, size!, 0.5, 0.5),
    );
  };
  const [acrossGrown, downGrown] = [Math.hypot(a, b), Math.hypot(c, d)];
  const [atX, atY] = [(a * left + c * top + e) * scale + x, (b * left + d * top + f) * scale + y];
  const turned = [a / acrossGrown, b / acrossGrown, c / downGrown, d / downGrown, atX, atY].join(',');
  // A plot that is too small for its scales shows no plane.
  if (right <= left || bottom <= top) return null;
  return (
    <>
      {wished && (
        <svg
          aria-hidden="true"
          data-testid="plot-moving"
          className="absolute left-0 top-0 overflow-visible"
          style={{
            transformOrigin: '0 0',
            transform: `matrix(${[a * scale, b * scale, c * scale, d * scale, e * scale + x, f * scale + y].join(',')})`,
          }}
          width={1}
          height={1}
        >
          {paths.map(([path, colour, place], i) => (
            <path key={i} d={path} fill={colour} transform={`matrix(${place.join(',')})`} />
          ))}
        </svg>
      )}
      <button
        ref={plane}
        type="button"
        aria-label={t`What the plot shows: arrow keys move it, + and − show less or more of it`}
        data-testid="plot-plane"
        className="pointer-events-auto absolute left-0 top-0 cursor-grab touch-none active:cursor-grabbing"
        style={{
          transformOrigin: '0 0',
          transform: `matrix(${turned})`,
          width: (right - left) * acrossGrown * scale,
          height: (bottom - top) * downGrown * scale,
        }}
        onPointerDown={down}
        onPointerMove={move}
        onPointerUp={up}
        onPointerCancel={up}
        onKeyDown={key}
      />
    </>
  );
}
