import { t } from '@lingui/core/macro';
import { XIcon } from '@phosphor-icons/react';
import { useEffect, useRef } from 'react';
import type { Seen } from '../core/seenBridge';
import { boxOf, isMadeLink } from '../data/seen';
import type { View } from '../sheet/ink/view';
import { type SeenActs, SeenOffers, seenWords } from '../sheet/text/SeenOffers';
import { SignButton } from '../ui/Button';

const cardWidth = 260;

interface SeenLayerProps {
  seen: Seen[];
  view: View;
  /** Whether they answer to a press, as in read mode. */
  reading: boolean;
  /** What was pressed. */
  chosen: Seen | undefined;
  acts: SeenActs;
  onChoose: (seen: Seen | undefined) => void;
}

/** A quiet line under typed words that something can be done with; in read mode what that is unfolds from a press. */
export function SeenLayer({ seen, view, reading, chosen, acts, onChoose }: SeenLayerProps) {
  const { scale, x, y } = view;
  return (
    <>
      <svg aria-hidden="true" className="pointer-events-none absolute inset-0 size-full" data-testid="seen-lines">
        {seen
          .filter((one) => !isMadeLink(one))
          .flatMap(({ item, from, kind, corners }) =>
            corners.map(([, , , , rightX, rightY, leftX, leftY], line) => (
              <line
                key={`${item} ${from} ${line}`}
                data-kind={kind}
                x1={leftX! * scale + x}
                y1={leftY! * scale + y}
                x2={rightX! * scale + x}
                y2={rightY! * scale + y}
                stroke="#4f7388"
                strokeWidth="1.5"
                strokeLinecap="round"
                strokeDasharray="0.1 4"
              />
            )),
          )}
      </svg>
      {reading && (
        <div className="pointer-events-none absolute inset-0 overflow-clip" data-testid="seen-words">
          {seen.map((one) => {
            const [left, top, right, bottom] = boxOf(one.corners.flat());
            return (
              <button
                key={`${one.item} ${one.from}`}
                type="button"
                aria-label={t`${one.words}: what can be done with it`}
                data-testid="seen"
                data-kind={one.kind}
                className="absolute rounded-sm focus-visible:bg-primary/10"
                style={{
                  left: left * scale + x,
                  top: top * scale + y,
                  width: (right - left) * scale,
                  height: (bottom - top) * scale,
                }}
                onClick={() => onChoose(one)}
              />
            );
          })}
        </div>
      )}
      {chosen && reading && <SeenCard seen={chosen} view={view} acts={acts} onClose={() => onChoose(undefined)} />}
    </>
  );
}

function SeenCard({
  seen,
  view: { scale, x, y },
  acts,
  onClose,
}: {
  seen: Seen;
  view: View;
  acts: SeenActs;
  onClose: () => void;
}) {
  const card = useRef<HTMLDivElement>(null);
  useEffect(() => card.current?.querySelector<HTMLElement>('a, li button')?.focus(), [seen]);
  const [left, , , bottom] = boxOf(seen.corners.flat());
  return (
    <div className="pointer-events-none absolute inset-2 z-20 flex flex-col">
      {/* Below its words; where there is less room than it takes, higher up. */}
      <div className="min-h-0 shrink-[1000]" style={{ flexBasis: Math.max(0, bottom * scale + y) }} />
      {/* Presses on the card are not presses on the sheet below it. */}
      {/* oxlint-disable-next-line jsx-a11y/no-noninteractive-element-interactions */}
      <div
        ref={card}
        role="dialog"
        tabIndex={-1}
        aria-label={t`What can be done with “${seen.words}”`}
        data-testid="seen-card"
        className="pointer-events-auto relative rounded-lg border border-base-300 bg-base-100 p-2 shadow-md"
        style={{ width: cardWidth, left: `max(0px, min(${left * scale + x}px, calc(100% - ${cardWidth}px)))` }}
        onPointerDown={(event) => event.stopPropagation()}
        onKeyDown={(event) => {
          event.stopPropagation();
          if (event.key === 'Escape') onClose();
        }}
      >
        <div className="flex items-start">
          <p className="min-w-0 grow px-2 py-2.5 font-semibold [overflow-wrap:anywhere]" data-testid="seen-said">
            {seenWords(seen)}
          </p>
          <SignButton label={t`Close`} data-testid="seen-close" onClick={onClose}>
            <XIcon size={18} />
          </SignButton>
        </div>
        <SeenOffers seen={seen} acts={acts} onDone={onClose} />
      </div>
    </div>
  );
}
