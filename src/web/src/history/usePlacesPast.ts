import { useQuery } from '@tanstack/react-query';
import { useEffect, useMemo, useState } from 'react';
import { useWorkspace } from '../data/useWorkspace';
import { getJson } from '../server/api';
import { soon } from '../sheet/ink/soon';
import type { OpenDocument } from '../sync/openDocument';
import { type Chart, columns, overAtOnce } from './chart';
import { became } from './haveBack';

/** The needle rests after so long, ms: what the server has to say of a moment is asked for then. */
const rest = 180;

export interface OnPlacesPast {
  /** Undefined as long as it is not known. */
  chart: Chart | undefined;
  /** Whether the server did not say what was written: the bar is of what was done to the notebook or folder itself. */
  isRough: boolean;
  /** Where the needle stands, 0 to 1, and in columns of the bar. */
  position: number;
  count: number;
  /** The moment, UTC milliseconds; 0 before all, and when it is now the time of the last deed. */
  time: number;
  isNow: boolean;
  /** The time that is had back, and asked for: of now, whatever is latest. */
  until: number;
  /** The same once the needle rests. */
  resting: number;
  /** Changes when something else is to be seen. */
  shown: number;
  placeOf: (time: number) => number;
  go: (count: number) => void;
  goTo: (position: number) => void;
  goToTime: (time: number) => void;
  goBeside: (later: boolean) => void;
}

/** A time after all that was done. */
const ever = 8_640_000_000_000_000;

/**
 * A notebook or library as it was, for as long as this is used.
 * @param path Where the server tells the bar of time.
 * @param from The moment to begin with, UTC milliseconds; 1 for now.
 */
export function usePlacesPast(document: OpenDocument | undefined, path: string, from: number): OnPlacesPast {
  const { PlacesBridge } = useWorkspace().core;
  const handle = document?.handle;
  const { data, isError } = useQuery({
    queryKey: ['chart', path],
    queryFn: () => getJson<Omit<Chart, 'length'>>(path),
    retry: false,
    refetchOnMount: 'always',
    refetchOnWindowFocus: false,
  });
  const chart = useMemo(
    () =>
      data
        ? { ...data, length: columns }
        : isError && handle !== undefined
          ? (JSON.parse(PlacesBridge.ChartOf(handle)) as Chart)
          : undefined,
    [PlacesBridge, data, isError, handle],
  );
  const sittings = useMemo(() => chart?.sittings.flat() ?? [], [chart]);
  const start = useMemo(() => {
    const last = chart?.sittings.at(-1)?.[1] ?? 0;
    return from > 1 && from < last
      ? { position: PlacesBridge.PositionOf(sittings, from), time: from }
      : { position: 1, time: last };
  }, [PlacesBridge, chart, sittings, from]);
  const [gone, setGone] = useState<typeof start>();
  const at = gone ?? start;
  const [shown, setShown] = useState(0);
  const isNow = at.position >= 1;
  const until = isNow ? ever : at.time;

  useEffect(() => {
    if (handle === undefined) return;
    let ended = false;
    /** In slices, so that the needle follows the hand. */
    const goOn = () => {
      if (ended) return;
      if (PlacesBridge.Move(handle, until, overAtOnce) > 0) soon(goOn);
      else setShown((before) => before + 1);
    };
    goOn();
    return () => {
      ended = true;
    };
  }, [PlacesBridge, handle, until]);
  useEffect(() => () => void (handle !== undefined && PlacesBridge.Close(handle)), [PlacesBridge, handle]);

  const [resting, setResting] = useState(until);
  useEffect(() => {
    const timer = setTimeout(() => setResting(until), rest);
    return () => clearTimeout(timer);
  }, [until]);

  const put = (position: number, time?: number) => {
    const place = Math.min(1, Math.max(0, position));
    setGone({ position: place, time: time ?? PlacesBridge.TimeAt(sittings, place) });
  };
  const isBefore = !isNow && chart !== undefined && at.time < (chart.sittings[0]?.[0] ?? 0);
  return {
    chart,
    isRough: isError && !data,
    ...at,
    count: Math.round(at.position * columns),
    time: isBefore ? 0 : at.time,
    isNow,
    until,
    resting,
    shown,
    placeOf: (time) => PlacesBridge.PositionOf(sittings, time),
    go: (count) => put(count / columns),
    goTo: put,
    goToTime: (time) => put(PlacesBridge.PositionOf(sittings, time), time),
    goBeside: (later) => {
      const time = PlacesBridge.Beside(sittings, at.time, later);
      put(later && time <= at.time ? 1 : PlacesBridge.PositionOf(sittings, time), time);
    },
  };
}

/**
 * What became since of things that are or were there, by their ids and Core's numbers.
 * @param version Changes whenever the document does.
 */
export function useDifferences(
  document: OpenDocument | undefined,
  past: OnPlacesPast,
  things: readonly { id: string }[],
  version: number,
): ReadonlyMap<string, number> {
  const { PlacesBridge } = useWorkspace().core;
  const handle = document?.handle;
  return useMemo(() => {
    const ids = things.map(({ id }) => id);
    const since = handle === undefined || past.shown === 0 ? [] : PlacesBridge.Differences(handle, ids);
    return new Map(ids.map((id, i) => [id, since[i] ?? became.nothing]));
  }, [PlacesBridge, handle, past.shown, things, version]);
}
