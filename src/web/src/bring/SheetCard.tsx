import { t } from '@lingui/core/macro';
import { ArrowClockwiseIcon, XIcon } from '@phosphor-icons/react';
import { memo, useEffect, useRef, useState } from 'react';
import type { LaidSheet } from '../core/bringBridge';
import { PaperPicture } from '../papers/PaperPicture';
import { SignButton } from '../ui/Button';
import { type BroughtFile, faceOf, type LeafSize } from './files';

/** A leaf that was chosen: of which file, and how it is turned. */
export interface Chosen extends LeafSize {
  /** Its place among all leaves, from 1. */
  page: number;
  file: BroughtFile;
  turn: number;
}

const wide = 196;

/** A sheet as it will be in the notebook; a leaf on it that is pressed can be turned or left out. */
export const SheetCard = memo(function SheetCard({
  sheet,
  index,
  labelled,
  leaves,
  picked,
  onPick,
  onTurn,
  onLeave,
}: {
  sheet: LaidSheet;
  index: number;
  /** Whether there is a line above it for the sections that begin with it. */
  labelled: boolean;
  leaves: Chosen[];
  /** The page of the leaf that is pressed, where it is on this sheet. */
  picked: number | undefined;
  onPick: (page: number | undefined) => void;
  onTurn: (page: number) => void;
  onLeave: (page: number) => void;
}) {
  const scale = wide / sheet.width;
  return (
    <li
      className="grid content-start justify-items-center gap-1.5 [content-visibility:auto]"
      data-testid="brought-sheet"
    >
      {labelled && (
        <p
          className="min-h-[20px] w-full truncate text-center text-[13.5px] font-semibold"
          data-testid={sheet.begins.length > 0 ? 'brought-section' : undefined}
        >
          {sheet.begins.join(' / ')}
        </p>
      )}
      <div className="relative shadow-sm" style={{ width: wide, height: sheet.height * scale }}>
        <PaperPicture paper={sheet.paper} width={wide} className="absolute inset-0" />
        {leaves.map((leaf, i) => {
          const place = sheet.leaves[i]!;
          const isPicked = picked === leaf.page;
          return (
            <button
              key={leaf.page}
              type="button"
              aria-pressed={isPicked}
              aria-label={t`Page ${leaf.page} of what is brought in`}
              data-testid="brought-leaf"
              className={`absolute overflow-hidden outline-offset-1 ${isPicked ? 'outline-3 outline-primary' : 'hover:outline-2 hover:outline-primary/60'}`}
              style={{
                left: place.left * scale,
                top: place.top * scale,
                width: place.width * scale,
                height: place.height * scale,
              }}
              onClick={() => onPick(isPicked ? undefined : leaf.page)}
            >
              <LeafFace leaf={leaf} width={place.width * scale} height={place.height * scale} />
            </button>
          );
        })}
      </div>
      {picked === undefined ? (
        <p className="flex min-h-11 max-w-full items-center truncate text-[13.5px] text-quiet">
          {sheet.title ? t`${index + 1} · ${sheet.title}` : index + 1}
        </p>
      ) : (
        <div className="flex min-h-11 items-center gap-1">
          <SignButton label={t`Turn to the right`} data-testid="turn-leaf" onClick={() => onTurn(picked)}>
            <ArrowClockwiseIcon size={20} />
          </SignButton>
          <SignButton label={t`Leave it out`} data-testid="leave-leaf" onClick={() => onLeave(picked)}>
            <XIcon size={20} />
          </SignButton>
        </div>
      )}
    </li>
  );
});

/** A leaf's picture, drawn when it comes into sight, turned as it will lie. */
export function LeafFace({ leaf, width, height }: { leaf: Chosen; width: number; height: number }) {
  const { file, number, turn } = leaf;
  const place = useRef<HTMLSpanElement>(null);
  const [address, setAddress] = useState<string>();
  useEffect(() => {
    let made: string | undefined;
    let gone = false;
    const sight = new IntersectionObserver(
      (seen) => {
        if (!seen.some((entry) => entry.isIntersecting)) return;
        sight.disconnect();
        void faceOf(file, number, wide * Math.min(devicePixelRatio, 2)).then(
          (face) => {
            if (!gone) setAddress((made = URL.createObjectURL(face)));
          },
          // A page that cannot be drawn stays white.
          () => {},
        );
      },
      { rootMargin: '300px' },
    );
    sight.observe(place.current!);
    return () => {
      gone = true;
      sight.disconnect();
      if (made) URL.revokeObjectURL(made);
    };
  }, [file, number]);
  const [across, down] = turn % 2 === 0 ? [width, height] : [height, width];
  return (
    <span
      ref={place}
      className="absolute inset-0 grid place-items-center bg-white"
      data-drawn={address ? '1' : undefined}
    >
      {address && (
        <img
          src={address}
          alt=""
          draggable={false}
          className="max-w-none"
          style={{ width: across, height: down, transform: `rotate(${turn * 90}deg)` }}
        />
      )}
    </span>
  );
}
