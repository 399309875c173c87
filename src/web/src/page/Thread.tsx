import { Button } from '../ui/Button';
import { t } from '@lingui/core/macro';
import { BookmarkSimpleIcon, CaretLeftIcon, CaretRightIcon, PlusIcon, SquaresFourIcon } from '@phosphor-icons/react';
import { useVirtualizer } from '@tanstack/react-virtual';
import { type PointerEvent, useEffect, useMemo, useRef, useState } from 'react';
import { Link } from 'react-router';
import { type NotebookEntry, overviewPath, type ShownPage } from '../model/items';
import { fillOf } from '../model/colours';
import { PageFace } from '../papers/PageFace';
import type { PlacedSpot } from '../data/useNotebookSpots';

interface ThreadProps {
  space: string;
  notebook: string;
  pages: NotebookEntry[];
  index: number;
  marks: PlacedSpot[];
  bookmarks: Set<string>;
  shown: Map<string, ShownPage>;
  sectionOf: (page: string) => NotebookEntry | undefined;
  onGo: (index: number) => void;
  onBookmark: () => void;
  onAdd?: (() => void) | undefined;
}

/** The bar under a page: every page of the notebook as a tick, coloured by its section, with marks and bookmarks on it. Drawn along, it shows the pages as they pass. */
export function Thread({
  space,
  notebook,
  pages,
  index,
  marks,
  bookmarks,
  shown,
  sectionOf,
  onGo,
  onBookmark,
  onAdd,
}: ThreadProps) {
  const scroller = useRef<HTMLDivElement>(null);
  const [scrubbing, setScrubbing] = useState<{ index: number; x: number }>();
  const open = useMemo(() => new Map(marks.filter((mark) => mark.open).map((mark) => [mark.page, mark.mark])), [marks]);
  // oxlint-disable-next-line react/incompatible-library -- what it gives is used here only
  const virtual = useVirtualizer({
    count: pages.length,
    horizontal: true,
    getScrollElement: () => scroller.current,
    estimateSize: () => tickWidth,
    overscan: 24,
  });
  useEffect(() => virtual.scrollToIndex(index, { align: 'center' }), [virtual, index]);
  const tickAt = (event: PointerEvent): number | undefined => {
    const tick = document.elementFromPoint(event.clientX, event.clientY)?.closest<HTMLElement>('[data-tick]');
    return tick ? Number(tick.dataset.tick) : undefined;
  };
  const scrub = (event: PointerEvent) => {
    const at = tickAt(event);
    if (at !== undefined) setScrubbing({ index: at, x: event.clientX });
  };
  const marked = bookmarks.has(pages[index]?.id ?? '');
  return (
    <nav
      aria-label={t`Pages`}
      className="in-full-hidden relative flex h-[60px] shrink-0 items-center gap-1.5 border-t border-base-300 px-3"
    >
      <button
        type="button"
        aria-label={t`Page before`}
        title={t`Page before`}
        data-testid="page-before"
        // A disabled button would let the focus go.
        aria-disabled={index === 0}
        onClick={() => index > 0 && onGo(index - 1)}
        className={arrow}
      >
        <CaretLeftIcon size={20} />
      </button>
      <div
        ref={scroller}
        className="min-w-0 shrink touch-pan-x overflow-x-auto overflow-y-hidden"
        onPointerMove={(event) => (event.buttons & 1) === 1 && scrub(event)}
        onPointerUp={() => {
          if (scrubbing) onGo(scrubbing.index);
          setScrubbing(undefined);
        }}
        onPointerLeave={() => setScrubbing(undefined)}
      >
        <ol className="relative h-11" style={{ width: virtual.getTotalSize() }}>
          {virtual.getVirtualItems().map(({ index: i, start }) => {
            const page = pages[i]!;
            return (
              <li key={page.id} className="absolute top-0" style={{ left: start }}>
                <Tick
                  page={page}
                  index={i}
                  here={i === index}
                  open={open.has(page.id)}
                  bookmarked={bookmarks.has(page.id)}
                  section={sectionOf(page.id)}
                  onGo={onGo}
                />
              </li>
            );
          })}
        </ol>
      </div>
      {scrubbing && pages[scrubbing.index] && (
        <div
          className="pointer-events-none absolute bottom-[66px] z-30 -translate-x-1/2 border border-base-300 bg-base-100 p-2 shadow-lg"
          data-testid="scrub"
          style={{ left: Math.max(90, scrubbing.x - 84) }}
        >
          <PageFace
            space={space}
            page={pages[scrubbing.index]!}
            shown={shown.get(pages[scrubbing.index]!.id)}
            width={110}
          />
          <p className="max-w-[110px] truncate pt-1 text-center text-[13px]">
            {scrubbing.index + 1} {pages[scrubbing.index]!.title}
          </p>
        </div>
      )}
      <button
        type="button"
        aria-label={t`Page after`}
        title={t`Page after`}
        data-testid="page-after"
        aria-disabled={index === pages.length - 1}
        onClick={() => index < pages.length - 1 && onGo(index + 1)}
        className={arrow}
      >
        <CaretRightIcon size={20} />
      </button>
      <GoTo count={pages.length} index={index} onGo={onGo} />
      <span className="grow" />
      <button
        type="button"
        aria-label={marked ? t`Take the bookmark out` : t`Bookmark this page`}
        title={marked ? t`Take the bookmark out` : t`Bookmark this page`}
        aria-pressed={marked}
        data-testid="bookmark"
        className={`${arrow} ${marked ? 'text-[#5f6c35]' : 'text-quiet'}`}
        onClick={onBookmark}
      >
        <BookmarkSimpleIcon size={22} weight={marked ? 'fill' : 'light'} />
      </button>
      <Link
        to={overviewPath(space, notebook)}
        aria-label={t`Overview of all pages`}
        title={t`Overview of all pages`}
        data-testid="open-overview"
        className={`${arrow} text-quiet`}
      >
        <SquaresFourIcon size={22} weight="light" />
      </Link>
      {onAdd && (
        <Button className="shrink-0" data-testid="add-page" onClick={onAdd}>
          <PlusIcon size={18} />
          {t`Page`}
        </Button>
      )}
    </nav>
  );
}

interface TickProps {
  page: NotebookEntry;
  index: number;
  here: boolean;
  open: boolean;
  bookmarked: boolean;
  section: NotebookEntry | undefined;
  onGo: (index: number) => void;
}

function Tick({ page, index, here, open, bookmarked, section, onGo }: TickProps) {
  const words = [t`Page ${index + 1}`, page.title, open && t`with an open mark`, bookmarked && t`bookmarked`]
    .filter(Boolean)
    .join(', ');
  return (
    <button
      type="button"
      aria-label={words}
      title={words}
      aria-current={here ? 'page' : undefined}
      data-testid="tick"
      data-tick={index}
      className="group relative grid h-11 w-[26px] place-items-center"
      onClick={() => onGo(index)}
    >
      {bookmarked && (
        <span
          className="absolute left-1/2 top-0 h-[9px] w-[7px] -translate-x-1/2 bg-lichen"
          data-testid="tick-bookmark"
        />
      )}
      {open && (
        <span className="absolute start-1/2 top-0.5 ms-1 size-2 rounded-full bg-accent" data-testid="tick-mark" />
      )}
      <span
        className={
          here
            ? 'mt-1 h-[22px] w-[15px] rounded-[1px] bg-primary'
            : 'mt-3 h-[13px] w-[10px] rounded-[1px] border border-quiet/60 bg-paper group-hover:border-primary'
        }
      />
      <span
        className={`absolute inset-x-0 bottom-0 h-[3px] ${fillOf[section?.colour ?? ''] ?? (section ? 'bg-spruce' : 'bg-base-300')}`}
      />
    </button>
  );
}

/** “Go to page 47”: a number, and Enter. */
function GoTo({ count, index, onGo }: { count: number; index: number; onGo: (index: number) => void }) {
  const [typed, setTyped] = useState<string>();
  const go = () => {
    const number = Number(typed);
    if (typed && Number.isInteger(number)) onGo(Math.min(Math.max(number, 1), count) - 1);
    setTyped(undefined);
  };
  return (
    <label className="flex shrink-0 items-center gap-1.5 text-[13px] text-quiet max-sm:hidden">
      {t`page`}
      <input
        aria-label={t`Go to page`}
        data-testid="go-to"
        inputMode="numeric"
        className="h-9 w-11 rounded-md border border-transparent bg-transparent text-center hover:border-base-300 focus:border-base-300"
        value={typed ?? String(index + 1)}
        onFocus={(event) => event.target.select()}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={go}
        onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
      />
    </label>
  );
}

const tickWidth = 26;
const arrow =
  'grid size-11 shrink-0 place-items-center rounded-md hover:bg-base-200 disabled:opacity-35 aria-disabled:cursor-default aria-disabled:opacity-35';
