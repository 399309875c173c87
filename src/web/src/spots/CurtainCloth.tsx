import { t } from '@lingui/core/macro';
import { ArrowsOutCardinalIcon, PencilSimpleIcon, TrashIcon } from '@phosphor-icons/react';
import { type PointerEvent as ReactPointerEvent, useEffect, useRef, useState } from 'react';
import { useLiftedByLectern } from '../data/useLecterns';
import { useWorkspace } from '../data/useWorkspace';
import type { View } from '../sheet/ink/view';
import type { OpenDocument } from '../sync/openDocument';
import { setSpot, type Spot } from '../data/spots';
import { Grip } from '../ui/Grip';

interface CurtainClothProps {
  spot: Spot;
  box: { left: number; top: number; width: number; height: number };
  page: OpenDocument;
  mayWrite: boolean;
  view: View;
}

/** A lifted curtain falls again after this, unless it is pressed before. */
const fallsAfter = 20_000;
const rail = 40;
/** An arrow key moves it so far, 0.01 mm. */
const step = 100;

/** A cloth over a part of the page: a press lifts it, another lets it fall. The question on it can be written while it hangs. */
export function CurtainCloth({ spot, box, page, mayWrite, view }: CurtainClothProps) {
  const { core } = useWorkspace();
  const [isUp, setUp] = useState(false);
  // From a lectern it is lifted for all, until it is let fall there.
  const { lifted: forAll, lift } = useLiftedByLectern();
  const lifted = forAll.includes(spot.id) || (!lift && isUp);
  const [asking, setAsking] = useState(
    () => spot.note === undefined && mayWrite && Date.now() - spot.createdAt < 2_000,
  );
  const [moved, setMoved] = useState({ x: 0, y: 0 });
  const drag = useRef<{ x: number; y: number }>(undefined);
  useEffect(() => {
    if (!isUp) return;
    const timer = setTimeout(() => setUp(false), fallsAfter);
    return () => clearTimeout(timer);
  }, [isUp]);
  const height = lifted ? Math.min(rail, box.height) : box.height;
  const move = (event: ReactPointerEvent) =>
    drag.current && setMoved({ x: event.clientX - drag.current.x, y: event.clientY - drag.current.y });
  const put = () => {
    if (drag.current && (moved.x !== 0 || moved.y !== 0))
      page.perform((handle, now) =>
        core.SpotBridge.Move(handle, spot.id, Math.round(moved.x / view.scale), Math.round(moved.y / view.scale), now),
      );
    drag.current = undefined;
    setMoved({ x: 0, y: 0 });
  };
  return (
    <div
      data-testid="curtain"
      data-lifted={lifted ? '1' : undefined}
      className="pointer-events-auto absolute"
      style={{ left: box.left + moved.x, top: box.top + moved.y, width: box.width, height }}
    >
      <button
        type="button"
        aria-pressed={lifted}
        aria-label={lifted ? t`Let the curtain fall` : [t`Lift the curtain`, spot.note].filter(Boolean).join(': ')}
        className="size-full overflow-hidden rounded-b-sm text-start text-[#f6f1e7] transition-[height] duration-150 motion-reduce:transition-none"
        style={{ background: cloth, boxShadow: '0 1px 3px rgb(0 0 0 / 0.25)' }}
        onClick={() => (lift ? lift(spot.id, !lifted) : setUp(!isUp))}
      >
        <span className="block h-1.5 w-full bg-[#132624]" />
        {!lifted && spot.note && !asking && (
          <span
            className={`block ps-4 font-title leading-snug [text-shadow:0_1px_2px_rgb(0_0_0/0.5)] ${box.height < 110 ? `truncate py-2 text-[16px] ${mayWrite ? 'pe-[128px]' : 'pe-4'}` : 'py-3 pe-4 text-[17px]'}`}
          >
            {spot.note}
          </span>
        )}
      </button>
      {!lifted && asking && (
        <input
          autoFocus
          aria-label={t`Question on the curtain`}
          placeholder={t`A question, if you like`}
          data-testid="curtain-note"
          className="absolute left-3 right-3 top-4 h-10 rounded-md border border-base-300 bg-base-100 px-2 text-base-content"
          defaultValue={spot.note ?? ''}
          maxLength={200}
          onBlur={(event) => {
            if (event.target.value !== (spot.note ?? '')) setSpot(core, page, spot.id, { note: event.target.value });
            setAsking(false);
          }}
          onKeyDown={(event) => (event.key === 'Enter' || event.key === 'Escape') && event.currentTarget.blur()}
        />
      )}
      {mayWrite && !lifted && (
        <span className="absolute bottom-0 right-0 flex">
          <button
            type="button"
            title={t`Write the question`}
            aria-label={t`Write the question`}
            data-testid="curtain-ask"
            className="grid size-10 place-items-center rounded text-[#f6f1e7] hover:bg-black/20"
            onClick={() => setAsking(true)}
          >
            <PencilSimpleIcon size={18} weight="light" />
          </button>
          <Grip
            label={t`Move the curtain`}
            data-testid="curtain-move"
            className="grid size-11 cursor-move place-items-center text-[#f6f1e7]"
            onStep={(right, down) =>
              page.perform((handle, now) => core.SpotBridge.Move(handle, spot.id, right * step, down * step, now))
            }
            onPointerDown={(event) => {
              event.currentTarget.setPointerCapture(event.pointerId);
              drag.current = { x: event.clientX, y: event.clientY };
            }}
            onPointerMove={move}
            onPointerUp={put}
            onPointerCancel={put}
          >
            <ArrowsOutCardinalIcon size={18} weight="light" />
          </Grip>
          <button
            type="button"
            title={t`Take the curtain away`}
            aria-label={t`Take the curtain away`}
            data-testid="curtain-remove"
            className="grid size-10 place-items-center rounded text-[#f6f1e7] hover:bg-black/20"
            onClick={() => setSpot(core, page, spot.id, { removed: '1' })}
          >
            <TrashIcon size={18} weight="light" />
          </button>
        </span>
      )}
    </div>
  );
}

/** Spruce cloth with fine folds. */
export const cloth =
  'repeating-linear-gradient(90deg, rgb(255 255 255 / 0.05) 0 2px, rgb(0 0 0 / 0.10) 7px 9px, rgb(255 255 255 / 0.03) 14px 16px, rgb(0 0 0 / 0.05) 21px 23px), linear-gradient(180deg, #234643, #1f3d3a 60%, #1b3532)';
