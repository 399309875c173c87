import { t } from '@lingui/core/macro';
import { ArrowUUpLeftIcon, ColumnsPlusRightIcon, DotsThreeIcon, SelectionIcon, XIcon } from '@phosphor-icons/react';
import { type ReactNode, useEffect, useRef } from 'react';
import { Button, SignButton, Toggle } from '../ui/Button';
import { Menu, type MenuEntry } from '../ui/Menu';
import { Strip, type StripProps } from './Strip';

interface PastBarProps {
  /** Who did what last before the moment, or what else is to be known. */
  last: string;
  isNow: boolean;
  compares: boolean;
  onCompare: () => void;
  /** What is shown while comparing. */
  sides: ReactNode;
  /** Having it back, all or what was chosen; undefined for who may not write. */
  back?: {
    words: string;
    isReady: boolean;
    choosing: boolean;
    chooseWords: string;
    onChoose: () => void;
    onBack: () => void;
  };
  more: MenuEntry[];
  onClose: () => void;
  strip: StripProps;
}

/** What moment it is, what can be done with it, and the bar along which the needle is drawn. */
export function PastBar({ last, isNow, compares, onCompare, sides, back, more, onClose, strip }: PastBarProps) {
  const leave = useRef(onClose);
  leave.current = onClose;
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      const isOver = globalThis.document.querySelector('[role=dialog], [role=menu]') !== null;
      if (event.key === 'Escape' && !event.defaultPrevented && !isOver) leave.current();
    };
    addEventListener('keydown', press);
    return () => removeEventListener('keydown', press);
  }, []);
  return (
    <section
      aria-label={t`History`}
      data-testid="history"
      data-count={strip.count}
      className="@container shrink-0 border-b border-base-300 bg-base-100"
    >
      <div className="flex flex-wrap items-center gap-x-1 gap-y-0 ps-4 pe-1 pt-1">
        <div className="me-auto min-w-0 py-1.5">
          <h2 className="truncate font-title text-[18px] leading-tight" data-testid="history-moment">
            {strip.words}
          </h2>
          <p className="truncate text-[13px] text-quiet" data-testid="history-last">
            {last}
          </p>
        </div>
        <Toggle
          on={compares}
          disabled={isNow && !compares}
          className="flex items-center gap-2 px-3"
          data-testid="history-compare"
          onClick={onCompare}
        >
          <ColumnsPlusRightIcon size={20} weight="light" />
          <span className="@max-4xl:sr-only">{t`Compare with now`}</span>
        </Toggle>
        {back && (
          <>
            <Toggle
              on={back.choosing}
              disabled={isNow}
              className="flex items-center gap-2 px-3"
              data-testid="history-part-on"
              onClick={back.onChoose}
            >
              <SelectionIcon size={20} weight="light" />
              <span className="@max-4xl:sr-only">{back.chooseWords}</span>
            </Toggle>
            <Button
              look="primary"
              disabled={isNow || !back.isReady}
              className="ms-1"
              data-testid="have-back"
              onClick={back.onBack}
            >
              <ArrowUUpLeftIcon size={20} weight="light" />
              {back.words}
            </Button>
          </>
        )}
        {more.length > 0 && (
          <Menu
            label={t`More: a copy, a name for this moment`}
            testId="history-more"
            icon={<DotsThreeIcon size={24} />}
            entries={more}
          />
        )}
        <SignButton label={t`Leave the history`} data-testid="history-close" onClick={onClose}>
          <XIcon size={20} />
        </SignButton>
      </div>
      {compares && (
        <div className="flex flex-wrap items-center gap-x-2 px-4" role="group" aria-label={t`What is shown`}>
          {sides}
        </div>
      )}
      <Strip {...strip} />
    </section>
  );
}

/** While the past is read. */
export function ReadingPast({ share, onClose }: { share: number; onClose: () => void }) {
  return (
    <section
      aria-label={t`History`}
      data-testid="history"
      className="flex shrink-0 items-center gap-4 border-b border-base-300 bg-base-100 py-1 ps-4 pe-1"
    >
      <span>{t`Reading the history`}</span>
      <progress
        aria-label={t`Reading the history`}
        className="progress progress-primary grow"
        value={Math.round(share * 100)}
        max={100}
      />
      <SignButton label={t`Leave the history`} onClick={onClose}>
        <XIcon size={20} />
      </SignButton>
    </section>
  );
}
