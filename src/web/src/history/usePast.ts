import { useEffect, useMemo, useRef, useState } from 'react';
import { useWorkspace } from '../data/useWorkspace';
import { soon } from '../sheet/ink/soon';
import type { OpenDocument } from '../sync/openDocument';
import { type Chart, overAtOnce } from './chart';

export interface OnPast {
  /** How much of the history is read, 0 to 1; undefined once it is. */
  reading: number | undefined;
  chart: Chart | undefined;
  /** How many operations had been made at the moment that is shown. */
  count: number;
  /** Where the moment stands on the bar, 0 to 1. */
  position: number;
  /** When it was; 0 before all. */
  time: number;
  isNow: boolean;
  go: (count: number) => void;
  goTo: (position: number) => void;
  compare: (on: boolean, added: boolean, removed: boolean) => void;
}

/**
 * A page as it was, for as long as this is used.
 * @param from The moment to begin with, UTC milliseconds; undefined for now.
 */
export function usePast(page: OpenDocument, from: number | undefined): OnPast {
  const { HistoryBridge } = useWorkspace().core;
  const { handle } = page;
  const [reading, setReading] = useState<number | undefined>(0);
  const [read, setRead] = useState<{ handle: number; chart: Chart }>();
  // Core may have the page anew, as when the device took it anew: its history is then read anew too.
  const chart = read?.handle === handle ? read.chart : undefined;
  const [count, setCount] = useState(0);
  const wanted = useRef(0);
  const going = useRef(false);
  const ended = useRef(false);

  /** Goes on towards what is wanted last, in slices, so that the needle follows the hand. */
  const goOn = () => {
    if (going.current || ended.current) return;
    let left = 0;
    page.look('past', true, (handle) => (left = HistoryBridge.Move(handle, wanted.current, overAtOnce)));
    if (left === 0) return;
    going.current = true;
    soon(() => {
      going.current = false;
      goOn();
    });
  };
  const go = (to: number) => {
    wanted.current = to;
    setCount(to);
    goOn();
  };

  useEffect(() => {
    let stopped = false;
    ended.current = false;
    const length = HistoryBridge.Open(handle);
    setReading(0);
    const readOn = () => {
      if (stopped) return;
      const left = HistoryBridge.Move(handle, length, overAtOnce);
      setReading(length === 0 ? 1 : 1 - left / length);
      if (left > 0) return soon(readOn);
      HistoryBridge.Show(handle);
      setRead({ handle, chart: JSON.parse(HistoryBridge.ChartOf(handle)) as Chart });
      setReading(undefined);
      go(from === undefined ? length : HistoryBridge.CountBy(handle, from));
    };
    soon(readOn);
    return () => {
      stopped = ended.current = true;
      page.look('past', false, () => HistoryBridge.Close(handle));
    };
  }, [HistoryBridge, page, handle]);

  const [position = 0, time = 0] = useMemo(
    () => (chart ? HistoryBridge.Moment(handle, count) : []),
    [HistoryBridge, handle, chart, count],
  );
  return {
    reading,
    chart,
    count,
    position,
    time,
    isNow: chart !== undefined && count >= chart.length,
    go,
    goTo: (to) => go(HistoryBridge.CountAt(handle, Math.min(1, Math.max(0, to)))),
    compare: (on, added, removed) => page.look('past', true, () => HistoryBridge.Compare(handle, on, added, removed)),
  };
}
