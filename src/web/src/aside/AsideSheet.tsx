import { t } from '@lingui/core/macro';
import { LockKeyIcon } from '@phosphor-icons/react';
import type { RefObject } from 'react';
import { toScreen, type View } from '../sheet/ink/view';
import type { Blotter } from '../sheet/blotter/blotter';
import { Button } from '../ui/Button';
import type { OnAside } from './useAside';

/** The corner by which the sheet over the page is taken, pixels. */
const corner = 48;

interface AsideSheetProps {
  holder: RefObject<HTMLDivElement | null>;
  aside: OnAside;
  /** The page that it lies over. */
  main: Blotter | undefined;
  view: View;
  /** Whether one may write on the page too. */
  mayWrite: boolean;
}

/** The person's own sheet over the page, as tracing paper, with a corner to lift it by. */
export function AsideSheet({ holder, aside, main, view, mayWrite }: AsideSheetProps) {
  const sheet = main && toScreen(main.sheet, view);
  const { isLaid, isInHand, isThere, document } = aside;
  return (
    <>
      {isLaid && sheet && (
        <div
          aria-hidden="true"
          data-testid="aside-paper"
          className={`pointer-events-none absolute transition-opacity duration-150 motion-reduce:transition-none ${isInHand ? 'opacity-35' : 'opacity-0'}`}
          style={{ ...sheet, background: main.paperColour }}
        />
      )}
      <div
        ref={holder}
        role="application"
        aria-label={t`Aside. Only you see what you write here.`}
        aria-hidden={!isInHand}
        data-testid="aside"
        data-in-hand={isInHand ? '1' : undefined}
        className={`absolute inset-0 touch-none select-none ${isInHand ? 'cursor-crosshair' : 'pointer-events-none'} ${isLaid ? '' : 'hidden'}`}
      />
      {sheet && (isLaid || isThere) && (
        <div className="pointer-events-none absolute z-10 flex items-center justify-end" style={atTheCorner(sheet)}>
          {isLaid && document && (
            <div
              role="status"
              data-testid="aside-line"
              className="pointer-events-auto flex min-w-0 items-center gap-2 rounded-lg border border-base-300 bg-base-100 ps-3 pe-1 text-[13px]"
            >
              <LockKeyIcon size={18} weight="light" className="shrink-0" />
              <span className="py-2">
                {isInHand ? t`You write on your aside. Only you see it.` : t`Your aside lies over the page.`}
              </span>
              {isInHand ? (
                mayWrite && (
                  <Button look="plain" className="shrink-0" data-testid="write-page" onClick={() => aside.lay(false)}>
                    {t`Write on the page`}
                  </Button>
                )
              ) : (
                <Button look="plain" className="shrink-0" data-testid="write-aside" onClick={() => aside.lay(true)}>
                  {t`Write on it`}
                </Button>
              )}
            </div>
          )}
          <Corner isLaid={isLaid} onPress={() => (isLaid ? aside.lift() : aside.lay(false))} />
        </div>
      )}
    </>
  );
}

/** At the sheet's lower end, or that of the desk where the sheet goes on. */
function atTheCorner({ left, top, width, height }: { left: number; top: number; width: number; height: number }) {
  return {
    left: 8,
    width: `clamp(${corner}px, ${left + width - 8}px, calc(100% - 8px))`,
    top: `clamp(0px, ${top + height - corner}px, calc(100% - ${corner}px))`,
    height: corner,
  };
}

/** Pressed, it lifts what lies over the page, or lays it down again. */
function Corner({ isLaid, onPress }: { isLaid: boolean; onPress: () => void }) {
  const label = isLaid ? t`Lift your aside` : t`Lay your aside over the page`;
  return (
    <button
      type="button"
      aria-label={label}
      title={label}
      aria-pressed={isLaid}
      data-testid="aside-corner"
      className="pointer-events-auto size-12 shrink-0 cursor-pointer text-primary"
      onClick={onPress}
    >
      <svg viewBox="0 0 48 48" aria-hidden="true" className="size-full">
        {isLaid ? (
          <>
            <path d="M48 16 L16 48 H48 Z" className="fill-base-200" />
            <path
              d="M48 16 L16 48 L20 24 Q20 20 24 20 Z"
              className="fill-base-100"
              stroke="currentColor"
              strokeWidth="1.2"
            />
          </>
        ) : (
          <path d="M46 10 L10 46 H46 Z" className="fill-base-100" stroke="currentColor" strokeWidth="1.2" />
        )}
      </svg>
    </button>
  );
}
