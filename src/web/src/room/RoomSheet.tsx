import { t } from '@lingui/core/macro';
import { useEffect, useRef, useState } from 'react';
import { loadCore } from '../core/runtime';
import { Dimmed } from '../lectern/Dimmed';
import { Trail } from '../lectern/trail';
import { OthersInk } from '../sheet/ink/othersInk';
import { asSeen, toScreen, type View } from '../sheet/ink/view';
import { cloth } from '../spots/CurtainCloth';
import type { Spotlight } from '../sync/lecterns';
import { RoomLive } from './roomLive';
import { fetchSheet, isOver, pictureOf, type SheetPicture } from './roomSheet';

/** What was written is fetched no more often than this, ms; what is being written is seen at once. */
const betweenFetches = 400;

interface Seen {
  x: number;
  y: number;
  width: number;
}

/** The sheet that the leader shows, as they see it: what is written, pointed at and lit. */
export function RoomSheet({ code, onOver }: { code: string; onOver: () => void }) {
  const holder = useRef<HTMLDivElement>(null);
  const [picture, setPicture] = useState<SheetPicture>();
  const [seen, setSeen] = useState<Seen>();
  const [lifted, setLifted] = useState<string[]>([]);
  const [spot, setSpot] = useState<Spotlight>();
  const [size, setSize] = useState({ width: 0, height: 0 });
  const [isAway, setAway] = useState(false);
  const layers = useRef<{ trail: Trail; ink: OthersInk | undefined }>(undefined);
  const latest = useRef(onOver);
  latest.current = onOver;

  useEffect(() => {
    let ended = false;
    let fetching = false;
    let again = false;
    let shown: SheetPicture | undefined;
    const trail = new Trail(holder.current!);
    layers.current = { trail, ink: undefined };
    const fetchOne = async () => {
      try {
        const next = await pictureOf(await fetchSheet(code));
        if (ended) return;
        setAway(false);
        setPicture(next);
        layers.current?.ink?.dried();
        if (shown) URL.revokeObjectURL(shown.address);
        if (next?.page !== shown?.page) setSeen(undefined);
        shown = next;
      } catch (problem) {
        if (ended) return;
        if (isOver(problem)) latest.current();
        else setAway(true);
      }
    };
    const fetchSoon = () => {
      again = true;
      if (fetching) return;
      fetching = true;
      void (async () => {
        while (again && !ended) {
          again = false;
          await fetchOne();
          await new Promise((done) => setTimeout(done, betweenFetches));
        }
        fetching = false;
      })();
    };
    let onPage = '';
    const live = new RoomLive(code, {
      shown: (page, up, light) => {
        setLifted(up);
        setSpot(light);
        if (page !== onPage) fetchSoon();
        onPage = page;
      },
      view: (x, y, width) => setSeen({ x, y, width }),
      point: (places) => trail.add('leader', places),
      wet: (person, connection, piece) => layers.current?.ink?.receive(person, connection, piece),
      changed: fetchSoon,
      closed: () => latest.current(),
    });
    void loadCore().then((core) => {
      if (ended) return;
      layers.current = { trail, ink: new OthersInk(holder.current!, core) };
      setSize((before) => ({ ...before }));
    });
    const sizes = new ResizeObserver(([entry]) => {
      const { width, height } = entry!.contentRect;
      setSize({ width, height });
    });
    sizes.observe(holder.current!);
    return () => {
      ended = true;
      live.stop();
      sizes.disconnect();
      trail.stop();
      layers.current?.ink?.stop();
      if (shown) URL.revokeObjectURL(shown.address);
    };
  }, [code]);
  useAwake();

  const view = viewOf(size, picture, seen);
  useEffect(() => {
    layers.current?.trail.setView(view);
    layers.current?.ink?.resize(size.width, size.height);
    layers.current?.ink?.setView(view);
  }, [view.scale, view.x, view.y, size]);

  return (
    <main className="relative h-full overflow-hidden bg-desk" aria-label={t`The sheet that is shown`}>
      {picture && (
        <img
          src={picture.address}
          alt={t`The page that is taught from`}
          data-testid="room-sheet"
          data-page={picture.page}
          className="absolute max-w-none border border-base-300 bg-paper"
          style={toScreen(picture.area, view)}
        />
      )}
      {/* What is being written lies under the cloth, as what was written does. */}
      <div ref={holder} className="absolute inset-0" data-testid="room-layers" />
      {picture?.curtains.map(({ id, area, note }) => {
        const isUp = lifted.includes(id);
        const box = toScreen(area, view);
        return (
          <div
            key={id}
            data-testid="room-curtain"
            data-lifted={isUp ? '1' : undefined}
            className="absolute overflow-hidden rounded-b-sm font-title text-[#f6f1e7] transition-[height] duration-150 motion-reduce:transition-none"
            style={{ ...box, height: isUp ? Math.min(24, box.height) : box.height, background: cloth }}
          >
            {!isUp && note && <p className="px-5 py-4 text-[22px] leading-snug">{note}</p>}
          </div>
        );
      })}
      {spot && <Dimmed spot={spot} view={view} />}
      {(!picture || isAway) && (
        <p
          role="status"
          className="absolute inset-x-4 bottom-6 mx-auto w-fit rounded-lg border border-base-300 bg-base-100 px-5 py-3"
        >
          {isAway
            ? t`There is no connection at this moment. It goes on by itself.`
            : t`The sheet comes as soon as a page is shown.`}
        </p>
      )}
    </main>
  );
}

/** As the leader sees it; until that is known the page fills the height of the screen. */
function viewOf(
  size: { width: number; height: number },
  picture: SheetPicture | undefined,
  seen: Seen | undefined,
): View {
  const { width, height } = size;
  if (seen && width > 0) return asSeen(seen, width, height);
  if (!picture) return { scale: 0.05, x: 0, y: 0 };
  const [left, top, right, bottom] = picture.area;
  const scale = Math.min(width / (right - left), height / (bottom - top));
  return asSeen({ x: (left + right) / 2, y: (top + bottom) / 2, width: width / scale }, width, height);
}

/** A screen that is looked at by a room does not fall asleep, where the browser can keep it awake. */
function useAwake(): void {
  useEffect(() => {
    let held: WakeLockSentinel | undefined;
    const hold = () =>
      void navigator.wakeLock?.request('screen').then(
        (lock) => (held = lock),
        () => {},
      );
    const seen = () => document.visibilityState === 'visible' && hold();
    hold();
    document.addEventListener('visibilitychange', seen);
    return () => {
      document.removeEventListener('visibilitychange', seen);
      void held?.release();
    };
  }, []);
}
