import { Button } from '../../ui/Button';
import { t } from '@lingui/core/macro';
import { useRef, useState } from 'react';
import type { OpenDocument } from '../../sync/openDocument';
import { useWorkspace } from '../../data/useWorkspace';
import { nextTurn } from '../ink/soon';

/** So many changes are made before the pen and the screen have their turn again. */
export const slice = 150;
/** What takes no longer than this is not spoken of, ms. */
const unspoken = 400;

export const stillAtWork = t`Something is still being done to this page.`;

/** What is shown of work that goes on. */
export interface LongWork {
  words: string;
  /** 0 to 1. */
  share: number;
  giveUp: (() => void) | undefined;
}

export interface LongWorker {
  shown: LongWork | undefined;
  busy: () => boolean;
  /** Does work of so many changes in slices, the first of them at once; goes on when the page is left. False when it was given up on the way. Not while busy. */
  run: (words: string, all: number, more: (most: number) => Promise<number>, mayGiveUp?: boolean) => Promise<boolean>;
  /** The same for changes that Core has begun and holds ready. With words for the way back it can be given up: what was made is taken back then. */
  runBegun: (words: string, all: number, back?: string) => Promise<boolean>;
}

/** Work on a page that may take longer than a moment: it says how far it is and can be given up. */
export function useLongWork(page: OpenDocument): LongWorker {
  const workspace = useWorkspace();
  const [shown, setShown] = useState<LongWork>();
  const running = useRef(false);
  const run: LongWorker['run'] = async (words, all, more, mayGiveUp = false) => {
    if (all <= slice) {
      await more(slice);
      return true;
    }
    running.current = true;
    void workspace.acquire(page.space, page.kind, page.id);
    let given = false;
    const giveUp = mayGiveUp ? () => (given = true) : undefined;
    const began = performance.now();
    try {
      for (let done = 0; done < all && !given;) {
        const made = await more(slice);
        if (made === 0) break;
        done += made;
        if (performance.now() - began > unspoken) setShown({ words, share: Math.min(1, done / all), giveUp });
        await nextTurn();
      }
    } finally {
      running.current = false;
      workspace.release(page.space, page.kind, page.id);
      setShown(undefined);
    }
    return !given;
  };
  const goOn = (most: number) => page.performAll((handle, now) => workspace.core.PageBridge.GoOn(handle, most, now));
  const runBegun: LongWorker['runBegun'] = async (words, all, back) => {
    if (await run(words, all, goOn, back !== undefined)) return true;
    await run(back!, workspace.core.PageBridge.GiveUp(page.handle), goOn);
    return false;
  };
  return { shown, busy: () => running.current, run, runBegun };
}

/** A line at the foot of the sheet while work goes on. */
export function WorkLine({ work }: { work: LongWork }) {
  return (
    <div
      role="status"
      data-testid="long-work"
      className="absolute inset-x-4 bottom-3 z-20 mx-auto flex h-14 max-w-[440px] items-center gap-4 rounded-lg border border-base-300 bg-base-100 px-4 shadow-md"
    >
      <span className="shrink-0">{work.words}</span>
      <progress
        aria-label={work.words}
        className="progress progress-primary grow"
        value={Math.round(work.share * 100)}
        max={100}
      />
      {work.giveUp && <Button className="shrink-0" data-testid="give-up" onClick={work.giveUp}>{t`Give up`}</Button>}
    </div>
  );
}
