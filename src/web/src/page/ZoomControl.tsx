import { Button } from '../ui/Button';
import { t } from '@lingui/core/macro';
import {
  ArrowsHorizontalIcon,
  FrameCornersIcon,
  LockSimpleIcon,
  LockSimpleOpenIcon,
  MagnifyingGlassIcon,
  MinusIcon,
  PlusIcon,
  RulerIcon,
} from '@phosphor-icons/react';
import { type ReactNode, useEffect, useRef, useState } from 'react';
import { Dialog } from '../ui/Dialog';
import type { Blotter } from '../sheet/blotter/blotter';
import { calibrate, calibration, trueScale } from '../sheet/ink/view';

interface ZoomControlProps {
  blotter: Blotter | undefined;
  scale: number;
  locked: boolean;
  onLock: (on: boolean) => void;
}

/** How large the page is shown; pressed, it unfolds to the ways of fitting it. */
export function ZoomControl({ blotter, scale, locked, onLock }: ZoomControlProps) {
  const [open, setOpen] = useState(false);
  const [measuring, setMeasuring] = useState(false);
  const holder = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (!open) return;
    const away = (event: PointerEvent) => !holder.current?.contains(event.target as Node) && setOpen(false);
    addEventListener('pointerdown', away);
    return () => removeEventListener('pointerdown', away);
  }, [open]);
  return (
    <div ref={holder} className="relative max-sm:hidden">
      <button
        type="button"
        aria-expanded={open}
        data-testid="zoom"
        title={t`How large the page is shown`}
        className="flex h-11 shrink-0 items-center gap-1.5 whitespace-nowrap rounded-md px-2 text-[13px] text-quiet hover:bg-base-200"
        onClick={() => setOpen(!open)}
      >
        {locked ? <LockSimpleIcon size={20} weight="light" /> : <MagnifyingGlassIcon size={20} weight="light" />}
        <span className="@max-2xl:sr-only">{Math.round((scale / trueScale()) * 100)} %</span>
      </button>
      {open && (
        <div
          className="absolute end-0 top-[46px] z-40 w-[222px] rounded-lg border border-base-300 bg-base-100 p-1.5 shadow-md"
          data-testid="zoom-menu"
        >
          <div className="flex">
            <Entry
              label={t`Smaller`}
              testId="zoom-out"
              icon={<MinusIcon size={18} />}
              onPress={() => blotter?.view.zoomBy(0.8)}
            />
            <Entry
              label={t`Larger`}
              testId="zoom-in"
              icon={<PlusIcon size={18} />}
              onPress={() => blotter?.view.zoomBy(1.25)}
            />
          </div>
          <Entry
            label={t`The whole width`}
            testId="zoom-width"
            icon={<ArrowsHorizontalIcon size={20} weight="light" />}
            onPress={() => (blotter?.view.fit('width'), setOpen(false))}
          />
          <Entry
            label={t`The whole page`}
            testId="zoom-fit"
            icon={<FrameCornersIcon size={20} weight="light" />}
            onPress={() => (blotter?.view.fit('page'), setOpen(false))}
          />
          <Entry
            label={t`True size`}
            testId="zoom-true"
            icon={<RulerIcon size={20} weight="light" />}
            onPress={() => (blotter?.view.fit('true'), setOpen(false))}
          />
          <div className="flex">
            {[50, 200, 400].map((share) => (
              <button
                key={share}
                type="button"
                className="h-11 grow rounded-md hover:bg-base-200"
                onClick={() => blotter?.view.zoomTo((trueScale() * share) / 100)}
              >
                {share} %
              </button>
            ))}
          </div>
          <Entry
            label={locked ? t`Let it be scaled again` : t`Keep this scale`}
            testId="zoom-lock"
            icon={
              locked ? <LockSimpleOpenIcon size={20} weight="light" /> : <LockSimpleIcon size={20} weight="light" />
            }
            onPress={() => (onLock(!locked), setOpen(false))}
          />
          <button
            type="button"
            className="h-11 w-full rounded-md px-3 text-start text-[13px] text-quiet underline hover:bg-base-200"
            data-testid="measure-screen"
            onClick={() => (setOpen(false), setMeasuring(true))}
          >{t`Measure this screen`}</button>
        </div>
      )}
      {measuring && <MeasureDialog onClose={() => setMeasuring(false)} onMeasured={() => blotter?.view.fit('true')} />}
    </div>
  );
}

function Entry({
  label,
  icon,
  testId,
  onPress,
}: {
  label: string;
  icon: ReactNode;
  testId: string;
  onPress: () => void;
}) {
  return (
    <button
      type="button"
      data-testid={testId}
      className="flex h-11 w-full items-center gap-3 rounded-md px-3 text-start hover:bg-base-200"
      onClick={onPress}
    >
      {icon}
      {label}
    </button>
  );
}

/** A card of ISO/IEC 7810 size ID-1 is 85.60 mm wide. */
const cardMillimetres = 85.6;
const cardShare = 53.98 / 85.6;
const cssMillimetre = 96 / 25.4;

/** Holding a bank card to the screen tells how large a millimetre is on it. */
function MeasureDialog({ onClose, onMeasured }: { onClose: () => void; onMeasured: () => void }) {
  const [factor, setFactor] = useState(calibration);
  const width = cardMillimetres * cssMillimetre * factor;
  return (
    <Dialog title={t`Measure this screen`} onClose={onClose} wide>
      <p className="mb-3">{t`Hold a bank card to the screen and make this one just as large. Then “True size” is true.`}</p>
      <div className="grid h-[300px] place-items-center overflow-hidden bg-desk">
        <svg width={width} height={width * cardShare} viewBox="0 0 856 540" aria-hidden="true">
          <rect
            x="2"
            y="2"
            width="852"
            height="536"
            rx="32"
            fill="var(--color-paper)"
            stroke="var(--color-primary)"
            strokeWidth="4"
          />
          <path d="M60 150h120v90H60z" fill="none" stroke="var(--color-gold)" strokeWidth="5" />
        </svg>
      </div>
      <label className="mt-4 block">
        <span className="mb-1 block font-semibold">{t`Width of the card`}</span>
        <input
          type="range"
          min={0.5}
          max={2}
          step={0.005}
          value={factor}
          data-testid="measure"
          className="range range-primary range-xs w-full"
          onChange={(event) => setFactor(Number(event.target.value))}
        />
      </label>
      <div className="mt-5 flex justify-end gap-2">
        <Button onClick={onClose}>{t`Cancel`}</Button>
        <Button
          look="primary"
          data-testid="measured"
          onClick={() => (calibrate(factor), onMeasured(), onClose())}
        >{t`It is as large as the card`}</Button>
      </div>
    </Dialog>
  );
}
