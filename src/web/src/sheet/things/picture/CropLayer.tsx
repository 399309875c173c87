import { t } from '@lingui/core/macro';
import { type PointerEvent as ReactPointerEvent, useEffect, useRef, useState } from 'react';
import { useAsset, usePictureAddress } from '../../../data/useAsset';
import { useWorkspace } from '../../../data/useWorkspace';
import type { ShownPicture } from '../../../core/thingBridge';
import type { OpenDocument } from '../../../sync/openDocument';
import { Button } from '../../../ui/Button';
import { Grip } from '../../../ui/Grip';
import { Segments } from '../../../ui/Segments';
import { ownPlace, toPage, type View } from '../../ink/view';
import { edgesOf, ofEdges, one, readCut, type Share, thinned, wholeCut, within, writeCut } from './cut';

/** The field of what is shown of a picture. */
const cutField = 21;
/** At least so much of each side is shown. */
const least = 300;
/** A step by keys. */
const keyStep = 100;
/** A loop goes on once the pen is so far, pixels. */
const loopStep = 3;
/** The picture is laid out so wide, and scaled to where it lies, pixels. */
const laidAcross = 1000;

interface CropLayerProps {
  page: OpenDocument;
  item: string;
  picture: ShownPicture;
  view: View;
  onDone: () => void;
}

type Side = -1 | 0 | 1;
const grips: readonly (readonly [Side, Side])[] = [
  [-1, -1],
  [0, -1],
  [1, -1],
  [-1, 0],
  [1, 0],
  [-1, 1],
  [0, 1],
  [1, 1],
];

/** Says what of a picture is shown: a rectangle by its edges, or a loop drawn round it. The picture itself stays whole. */
export function CropLayer({ page, item, picture, view, onDone }: CropLayerProps) {
  const { core } = useWorkspace();
  const address = usePictureAddress(useAsset(page.space, picture.asset));
  const [cut, setCut] = useState(() => readCut(picture.cut));
  const [way, setWay] = useState<'rectangle' | 'loop'>(edgesOf(cut) ? 'rectangle' : 'loop');
  const held = useRef<{ sides: readonly [Side, Side] | undefined; from: Share; edges: number[] }>(undefined);
  const [drawing, setDrawing] = useState<Share[]>();
  const root = useRef<HTMLDivElement>(null);

  const [a, b, c, d, e, f] = picture.place;
  const { scale, x: left, y: top } = view;
  /** Where a share of the picture lies, pixels of the desk. */
  const onDesk = ([u, v]: Share): [number, number] => {
    const [x, y] = [(u / one) * picture.width, (v / one) * picture.height];
    return [(a * x + c * y + e) * scale + left, (b * x + d * y + f) * scale + top];
  };
  const shareAt = (event: ReactPointerEvent): Share => {
    const at = ownPlace(picture.place, toPage(event, root.current!.getBoundingClientRect(), view));
    return [(at.x * one) / picture.width, (at.y * one) / picture.height];
  };
  const edges = edgesOf(cut);
  const moved = (from: readonly number[], sides: readonly [Side, Side] | undefined, [dx, dy]: Share): Share[] => {
    const [l, t0, r, bottom] = from as [number, number, number, number];
    if (!sides) {
      const x = Math.max(-l, Math.min(dx, one - r));
      const y = Math.max(-t0, Math.min(dy, one - bottom));
      return ofEdges([within(l + x), within(t0 + y), within(r + x), within(bottom + y)]);
    }
    const [sx, sy] = sides;
    return ofEdges([
      sx < 0 ? within(Math.min(l + dx, r - least)) : l,
      sy < 0 ? within(Math.min(t0 + dy, bottom - least)) : t0,
      sx > 0 ? within(Math.max(r + dx, l + least)) : r,
      sy > 0 ? within(Math.max(bottom + dy, t0 + least)) : bottom,
    ]);
  };
  const take = (sides: readonly [Side, Side] | undefined) => (event: ReactPointerEvent) => {
    event.stopPropagation();
    event.currentTarget.setPointerCapture(event.pointerId);
    if (way === 'loop') return setDrawing([shareAt(event)]);
    if (edges) held.current = { sides, from: shareAt(event), edges };
  };
  const move = (event: ReactPointerEvent) => {
    if (drawing) {
      const at = shareAt(event).map(within) as Share;
      const [x, y] = onDesk(at);
      const [lx, ly] = onDesk(drawing.at(-1)!);
      if (Math.hypot(x - lx, y - ly) >= loopStep) setDrawing([...drawing, at]);
      return;
    }
    const hold = held.current;
    if (!hold) return;
    const [x, y] = shareAt(event);
    setCut(moved(hold.edges, hold.sides, [x - hold.from[0], y - hold.from[1]]));
  };
  const end = () => {
    held.current = undefined;
    if (drawing && drawing.length > 2) setCut(thinned(drawing));
    setDrawing(undefined);
  };
  const listen = { onPointerMove: move, onPointerUp: end, onPointerCancel: end };
  const keep = () => {
    const text = writeCut(cut);
    if (text !== picture.cut)
      page.perform((handle, now) => core.HandBridge.Set(handle, [item], [cutField], [text], now));
    onDone();
  };
  // Escape lets go of it, and of nothing else.
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (event.key !== 'Escape') return;
      event.preventDefault();
      onDone();
    };
    addEventListener('keydown', press, { capture: true });
    return () => removeEventListener('keydown', press, { capture: true });
  }, [onDone]);
  const points = (line: readonly Share[]) => line.map((share) => onDesk(share).join(',')).join(' ');
  const path = (line: readonly Share[]) => `M${points(line).replaceAll(' ', 'L')}Z`;
  const foot = Math.max(...wholeCut.map((share) => onDesk(share)[1]));
  const start = Math.min(...wholeCut.map((share) => onDesk(share)[0]));
  const grown = picture.width / laidAcross;
  return (
    <div
      ref={root}
      role="group"
      aria-label={t`Show a part of it`}
      data-testid="crop-layer"
      className="absolute inset-0 z-20 overflow-hidden"
    >
      {address && (
        <img
          src={address}
          alt=""
          draggable={false}
          className="absolute top-0 left-0 max-w-none origin-top-left"
          style={{
            width: laidAcross,
            height: picture.height / grown,
            transform: `matrix(${[a, b, c, d].map((part) => part * grown * scale).join(',')},${e * scale + left},${f * scale + top})`,
          }}
        />
      )}
      <svg className="absolute inset-0 size-full" aria-hidden="true">
        <path d={`${path(wholeCut)}${path(drawing ?? cut)}`} fillRule="evenodd" className="fill-base-100 opacity-75" />
        <polygon
          points={points(drawing ?? cut)}
          className={`fill-transparent stroke-[#4f7388] ${way === 'loop' ? 'cursor-crosshair' : 'cursor-move'}`}
          strokeWidth={1.5}
          strokeDasharray="5 4"
        />
        <polygon
          points={points(wholeCut)}
          className={`touch-none fill-transparent stroke-base-300 ${way === 'loop' ? 'cursor-crosshair' : 'cursor-move'}`}
          data-testid="crop-area"
          onPointerDown={take(undefined)}
          {...listen}
        />
      </svg>
      {way === 'rectangle' &&
        edges &&
        grips.map((sides) => {
          const [sx, sy] = sides;
          const [x, y] = onDesk([
            sx < 0 ? edges[0] : sx > 0 ? edges[2] : (edges[0] + edges[2]) / 2,
            sy < 0 ? edges[1] : sy > 0 ? edges[3] : (edges[1] + edges[3]) / 2,
          ]);
          return (
            <Grip
              key={`${sx},${sy}`}
              label={t`Edge of what is shown`}
              data-testid="crop-grip"
              data-grip={`${sx},${sy}`}
              className="absolute grid size-11 -translate-x-1/2 -translate-y-1/2 place-items-center"
              style={{ left: x, top: y }}
              onStep={(right, down) => setCut(moved(edges, sides, [right * keyStep, down * keyStep]))}
              onPointerDown={take(sides)}
              {...listen}
            >
              <span className="size-3 rounded-sm border-[1.5px] border-[#4f7388] bg-paper" />
            </Grip>
          );
        })}
      <div
        className="absolute flex flex-wrap items-center gap-2 rounded-lg border border-base-300 bg-base-100 p-2 shadow-md"
        style={{
          left: `clamp(8px, ${start}px, max(8px, calc(100% - 520px)))`,
          top: `min(${foot + 14}px, calc(100% - 64px))`,
        }}
      >
        <div className="-mt-2.5 w-[200px]">
          <Segments
            label={t`How it is cut`}
            value={way}
            onValue={(to) => {
              setWay(to);
              // A rectangle round what the loop shows.
              if (to === 'rectangle' && !edges) {
                const [xs, ys] = [cut.map(([x]) => x), cut.map(([, y]) => y)];
                setCut(ofEdges([Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)]));
              }
            }}
            options={[
              { value: 'rectangle', words: t`Edges`, testId: 'crop-rectangle' },
              { value: 'loop', words: t`Loop`, testId: 'crop-loop' },
            ]}
          />
        </div>
        <Button
          data-testid="crop-whole"
          onClick={() => {
            setCut([...wholeCut]);
            setWay('rectangle');
          }}
        >
          {t`All of it`}
        </Button>
        <Button look="plain" data-testid="crop-cancel" onClick={onDone}>{t`Cancel`}</Button>
        <Button look="primary" data-testid="crop-keep" onClick={keep}>{t`Keep`}</Button>
      </div>
    </div>
  );
}
