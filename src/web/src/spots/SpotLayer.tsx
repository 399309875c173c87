import { arrowWays } from '../ui/Grip';
import { t } from '@lingui/core/macro';
import type { Writer } from '../data/usePeople';
import { useLinkWords } from '../links/useLinkWords';
import { toScreen, type View } from '../sheet/ink/view';
import type { OpenDocument } from '../sync/openDocument';
import { useWorkspace } from '../data/useWorkspace';
import { CurtainCloth } from './CurtainCloth';
import { MarkCard } from './MarkCard';
import { type MarkKind, MarkSign } from './markKinds';
import { setSpot, type Spot } from '../data/spots';

interface SpotLayerProps {
  spots: Spot[];
  view: View;
  page: OpenDocument;
  kinds: MarkKind[];
  people: Writer[];
  mayWrite: boolean;
  /** Whether boxes among typed words are ticked by a press, as in read mode. */
  mayTick: boolean;
  /** Whether links answer to a press, as in read mode. */
  reading: boolean;
  chosen: string | undefined;
  onChoose: (spot: string | undefined) => void;
  onFollow: (spot: Spot) => void;
  onCopyLink: (spot: Spot) => void;
}

const cardWidth = 300;
/** Arrow keys move a mark so far, with shift a little, 0.01 mm. */
const [step, smallStep] = [500, 100];
/** The signs on a sheet: discs for marks, a dotted line under links, a bracket beside headings, cloth for curtains. They go along with the view. */
export function SpotLayer({
  spots,
  view,
  page,
  kinds,
  people,
  mayWrite,
  mayTick,
  reading,
  chosen,
  onChoose,
  onFollow,
  onCopyLink,
}: SpotLayerProps) {
  const { core } = useWorkspace();
  const wordsOf = useLinkWords();
  /** A mark on ink goes with its ink. */
  const mayMove = (spot: Spot) => mayWrite && spot.kind === 'mark' && spot.items.length === 0;
  const card = spots.find((spot) => spot.id === chosen && spot.kind === 'mark' && !spot.typed);
  const tick = (spot: Spot, done: boolean) => setSpot(core, page, spot.id, { done: done ? '1' : '' });
  return (
    <div className="pointer-events-none absolute inset-0 overflow-clip" data-testid="spots">
      {spots.map((spot) => {
        const box = toScreen(spot.area, view);
        if (spot.typed)
          return (
            <TypedTask key={spot.id} spot={spot} box={box} mayTick={mayTick} onTick={(done) => tick(spot, done)} />
          );
        if (spot.kind === 'mark') {
          const kind = kinds.find((one) => one.id === spot.mark);
          const called = `${kind?.words ?? t`Mark`}${spot.note ? `: ${spot.note}` : ''}`;
          const label = spot.doneAt ? t`${called}, ticked off` : spot.answered ? t`${called}, answered` : called;
          return (
            <button
              key={spot.id}
              type="button"
              aria-label={label}
              title={mayMove(spot) ? t`${label}. Arrow keys move it.` : label}
              data-testid="mark"
              data-spot={spot.id}
              onKeyDown={(event) => {
                const way = arrowWays[event.key];
                if (!way || !mayMove(spot)) return;
                event.preventDefault();
                event.stopPropagation();
                const by = event.shiftKey ? smallStep : step;
                page.perform((handle, now) => core.SpotBridge.Move(handle, spot.id, way[0] * by, way[1] * by, now));
              }}
              data-mark={spot.mark}
              data-done={spot.doneAt ? '1' : undefined}
              data-answered={spot.answered ? '1' : undefined}
              className="pointer-events-auto absolute grid size-10 -translate-x-1/2 -translate-y-1/2 place-items-center rounded-full"
              style={{ left: box.left + box.width + (spot.items.length > 0 ? 16 : 0), top: box.top + box.height / 2 }}
              onClick={() => onChoose(spot.id === chosen ? undefined : spot.id)}
            >
              <MarkSign kind={kind} full done={Boolean(spot.doneAt)} answered={spot.answered} />
            </button>
          );
        }
        if (spot.kind === 'curtain')
          return <CurtainCloth key={spot.id} spot={spot} box={box} page={page} mayWrite={mayWrite} view={view} />;
        if (spot.kind === 'link') {
          const label = t`Link to ${wordsOf(spot)}`;
          // While one writes the pen goes through it; keys reach it all the same.
          return (
            <button
              key={spot.id}
              type="button"
              aria-label={label}
              title={label}
              data-testid="link"
              className={`absolute border-b-2 border-dotted border-[#4f7388] focus-visible:bg-[#4f7388]/15 ${reading ? 'pointer-events-auto cursor-pointer hover:bg-[#4f7388]/10' : ''}`}
              style={box}
              onClick={() => onFollow(spot)}
            />
          );
        }
        return (
          <span
            key={spot.id}
            data-testid="heading"
            className="absolute border-s-[3px] border-[#7c8a4b]/70"
            style={{ left: box.left - 9, top: box.top, height: box.height }}
          />
        );
      })}
      {card && (
        <div
          className="pointer-events-none absolute inset-y-2 z-20 flex flex-col *:pointer-events-auto"
          style={{ left: leftOfCard(card, view) }}
        >
          {/* Below its mark; where there is less room than it takes, higher up. */}
          <div
            className="pointer-events-none! min-h-0 shrink-[1000]"
            style={{ flexBasis: Math.max(0, card.area[3] * view.scale + view.y + 14) }}
          />
          <MarkCard
            key={card.id}
            spot={card}
            kinds={kinds}
            page={page}
            people={people}
            mayWrite={mayWrite}
            onCopyLink={() => onCopyLink(card)}
            onClose={() => onChoose(undefined)}
          />
        </div>
      )}
    </div>
  );
}

/** A box to be ticked, for who has no pen in the hand: a press on it is the sheet's. */
function TypedTask({
  spot,
  box,
  mayTick,
  onTick,
}: {
  spot: Spot;
  box: { left: number; top: number; width: number; height: number };
  mayTick: boolean;
  onTick: (done: boolean) => void;
}) {
  return (
    <button
      type="button"
      role="checkbox"
      aria-checked={Boolean(spot.doneAt)}
      aria-label={spot.note}
      disabled={!mayTick}
      data-testid="typed-task"
      data-spot={spot.id}
      className="absolute rounded-sm focus-visible:bg-primary/10"
      style={box}
      onClick={() => onTick(!spot.doneAt)}
    />
  );
}

/** So far to the left that it stays on the screen. */
function leftOfCard(spot: Spot, view: View): string {
  const x = spot.area[2] * view.scale + view.x;
  return `max(8px, min(${x - cardWidth / 2}px, calc(100% - ${cardWidth + 92}px)))`;
}
