import { t } from '@lingui/core/macro';
import {
  ArrowClockwiseIcon,
  ArrowCounterClockwiseIcon,
  DotsThreeIcon,
  type Icon,
  PenNibIcon,
  DotsSixIcon,
} from '@phosphor-icons/react';
import { type PointerEvent as ReactPointerEvent, type ReactNode, useRef } from 'react';
import { describePen } from '../../model/pens';
import { AllTools } from './AllTools';
import { handToolOf } from './handTools';
import { offers, trayOffers } from './offers';
import { PenStroke } from './PenStroke';
import { Sign } from './Sign';
import type { Offer, SheetActs, Tools } from '../hand/tool';
import type { TrayPlace } from './useTrayPlace';

interface TrayProps {
  tools: Tools;
  sheet: SheetActs;
  side: 'left' | 'right';
  /** Its names are left out, where there is little room. */
  slim: boolean;
  folded: boolean;
  onPlace: (change: Partial<TrayPlace>) => void;
  undo: (() => void) | undefined;
  redo: (() => void) | undefined;
}

/** So far the tray is dragged by its grip before it is moved, pixels. */
const dragged = 8;
/** The panel that shows all tools. */
const allTools = 'more';

/** The pens as strokes of themselves, the tools of one's choice, and at its foot what takes back; what is pressed again unfolds its settings beside it, one level deep. */
export function Tray(props: TrayProps) {
  const { tools, sheet, side, slim, folded, onPlace, undo, redo } = props;
  const { open } = tools;
  const panel = offers.find((offer) => offer.name === open) ?? (open === 'pen' ? handToolOf('pen') : undefined);
  const { hint } = handToolOf(tools.held);
  const size = slim ? 'w-11' : 'w-full';
  const back = (
    <>
      <TrayButton slim={slim} label={t`Undo`} testId="undo" icon={ArrowCounterClockwiseIcon} onPress={undo} />
      <TrayButton slim={slim} label={t`Redo`} testId="redo" icon={ArrowClockwiseIcon} onPress={redo} />
    </>
  );
  if (folded)
    return (
      <div
        data-testid="tray-dot"
        className={`in-full-put-away absolute z-20 flex flex-col gap-1 rounded-full border border-base-300 bg-base-200 p-1 ${tools.isOn('loupe') ? 'bottom-[204px]' : 'bottom-3'} ${side === 'right' ? 'right-2' : 'left-2'}`}
      >
        <TrayButton slim label={t`Undo`} testId="undo" icon={ArrowCounterClockwiseIcon} onPress={undo} />
        <TrayButton slim label={t`Redo`} testId="redo" icon={ArrowClockwiseIcon} onPress={redo} />
        <button
          type="button"
          title={t`Unfold the tray`}
          aria-label={t`Unfold the tray`}
          data-testid="unfold-tray"
          className="grid size-11 place-items-center rounded-full border border-primary bg-paper"
          onClick={() => onPlace({ folded: false })}
        >
          <InHand tools={tools} sheet={sheet} />
        </button>
      </div>
    );
  return (
    <div
      className={`in-full-put-away pointer-events-none absolute z-20 flex items-start gap-2.5 *:pointer-events-auto ${slim ? 'top-0' : 'top-3'} ${tools.isOn('loupe') ? 'bottom-[204px]' : slim ? 'bottom-0' : 'bottom-3'} ${side === 'right' ? `flex-row-reverse ${slim ? 'right-0' : 'right-3'}` : slim ? 'left-0' : 'left-3'}`}
      data-testid="pen-tray"
      data-side={side}
    >
      <div
        role="toolbar"
        aria-label={t`Pen tray`}
        aria-orientation="vertical"
        className={`flex max-h-full flex-col items-center overflow-y-auto bg-base-200 ${slim ? `h-full w-[52px] border-base-300 px-[3px] ${side === 'right' ? 'border-s' : 'border-e'}` : 'w-[98px] rounded-lg border border-base-300 px-[4px] pb-1'}`}
      >
        <Grip onPlace={onPlace} />
        <div className={`flex min-h-[92px] shrink flex-col items-center overflow-y-auto ${size}`}>
          {tools.tray.map((pen, i) => {
            const inHand = i === tools.chosen && tools.held === 'pen';
            return (
              <button
                key={i}
                type="button"
                aria-pressed={inHand}
                aria-label={t`Pen ${i + 1}: ${describePen(pen)}`}
                title={describePen(pen)}
                data-testid={`pen-${i + 1}`}
                onClick={() => tools.press(i)}
                className={`flex h-11 shrink-0 items-center rounded-md border-[1.5px] ${slim ? 'w-11 justify-center' : 'w-[84px] gap-1 ps-1'} ${inHand ? 'border-primary bg-paper' : 'border-transparent hover:border-base-300'}`}
              >
                {!slim && (
                  <span className={`w-2.5 text-[11px] ${inHand ? 'text-[#625f54]' : 'text-quiet'}`}>{i + 1}</span>
                )}
                <PenStroke core={sheet.core} pen={pen} onPaper={inHand} small={slim} />
              </button>
            );
          })}
        </div>
        <hr className={`my-1 shrink-0 border-base-300 ${size}`} />
        <div className={`grid shrink-0 ${slim ? 'grid-cols-1' : 'grid-cols-2'}`}>
          {trayOffers(tools).map((offer) => (
            <OfferButton key={offer.name} slim={slim} offer={offer} tools={tools} />
          ))}
        </div>
        <button
          type="button"
          aria-expanded={open === allTools}
          title={t`All tools`}
          data-testid="all-tools-button"
          onClick={() => tools.unfold(open === allTools ? undefined : allTools)}
          className={`flex h-11 shrink-0 items-center justify-center gap-1.5 rounded-md border-[1.5px] text-[12px] ${slim ? 'w-11' : 'w-full'} ${open === allTools ? 'border-primary bg-base-100' : 'border-transparent hover:border-base-300'}`}
        >
          <DotsThreeIcon size={22} />
          <span className={slim ? 'sr-only' : ''}>{t`More`}</span>
        </button>
        {slim && <span className="min-h-0 grow" />}
        <hr className={`my-1 shrink-0 border-base-300 ${size}`} />
        <div className={`grid shrink-0 ${slim ? 'grid-cols-1' : 'grid-cols-2'}`}>{back}</div>
      </div>
      {open === allTools && <AllTools tools={tools} side={side} onPlace={onPlace} />}
      {panel?.Panel && open === panel.name && <panel.Panel tools={tools} sheet={sheet} />}
      {!open && hint && (
        <p role="status" className="rounded-lg border border-base-300 bg-base-100 px-3 py-2 text-[13px] text-quiet">
          {hint}
        </p>
      )}
    </div>
  );
}

/** What is in the hand, in small. */
function InHand({ tools, sheet }: Pick<TrayProps, 'tools' | 'sheet'>) {
  if (tools.held === 'pen') {
    const pen = tools.tray[tools.chosen];
    return pen ? <PenStroke core={sheet.core} pen={pen} onPaper small /> : <PenNibIcon size={20} weight="light" />;
  }
  const held = handToolOf(tools.held);
  return <Sign of={held.icon(tools.settingsOf(held))} className="text-[#22302e]" />;
}

/** Folds the tray to a dot when it is pressed; dragged over the middle of the screen it takes the tray to the other side. */
function Grip({ onPlace }: { onPlace: (change: Partial<TrayPlace>) => void }) {
  const from = useRef<number>(undefined);
  const moved = useRef(false);
  const move = (event: ReactPointerEvent) => {
    if (from.current === undefined) return;
    if (Math.abs(event.clientX - from.current) > dragged) moved.current = true;
  };
  const end = (event: ReactPointerEvent) => {
    if (moved.current) onPlace({ side: event.clientX < innerWidth / 2 ? 'left' : 'right' });
    from.current = undefined;
  };
  return (
    <button
      type="button"
      aria-label={t`Fold the tray to a dot`}
      title={t`Press to fold the tray; drag to take it to the other side`}
      data-testid="fold-tray"
      className="grid h-11 w-full shrink-0 cursor-grab touch-none place-items-center text-quiet hover:text-base-content"
      onPointerDown={(event) => {
        from.current = event.clientX;
        moved.current = false;
        (event.currentTarget as Element).setPointerCapture(event.pointerId);
      }}
      onPointerMove={move}
      onPointerUp={end}
      onPointerCancel={() => (from.current = undefined)}
      onClick={() => moved.current || onPlace({ folded: true })}
    >
      <DotsSixIcon size={22} />
    </button>
  );
}

function OfferButton({ offer, tools, slim }: { offer: Offer; tools: Tools; slim: boolean }) {
  return (
    <TrayButton
      slim={slim}
      label={offer.words(tools)}
      title={offer.title}
      testId={`tool-${offer.name}`}
      icon={offer.icon(tools)}
      on={offer.isOn(tools)}
      onPress={() => offer.press(tools)}
    />
  );
}

interface TrayButtonProps {
  label: string;
  title?: string;
  testId: string;
  icon: Icon;
  on?: boolean;
  slim: boolean;
  /** None where there is nothing to be done. */
  onPress: (() => void) | undefined;
}

function TrayButton({ label, title = label, testId, icon, on, slim, onPress }: TrayButtonProps): ReactNode {
  return (
    <button
      type="button"
      title={title}
      aria-label={slim ? label : undefined}
      aria-pressed={on}
      data-testid={testId}
      disabled={!onPress}
      onClick={onPress}
      className={`flex h-11 w-11 flex-col items-center justify-center gap-px rounded-md border-[1.5px] text-[11px] leading-none disabled:opacity-35 ${on ? 'border-primary bg-base-100' : 'border-transparent enabled:hover:border-base-300'}`}
    >
      <Sign of={icon} />
      {!slim && label}
    </button>
  );
}
