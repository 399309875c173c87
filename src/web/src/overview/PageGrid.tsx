import { useKeptFocus } from '../ui/useKeptFocus';
import { t } from '@lingui/core/macro';
import { useDroppable } from '@dnd-kit/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { memo, type ReactNode, useEffect, useMemo, useRef, useState } from 'react';
import { type NotebookEntry, root } from '../model/items';
import { fillOf } from '../model/colours';
import { Moving } from '../papers/dragged';
import { gap, type Outlined, type Row, rowsOf, useColumns } from './rows';

/** Below a tile, for its title, pixels. */
const under = 46;
/** So many rows above and below what is in sight are kept, and from when on, ms after the first. */
const overscan = 2;
const settlesAfter = 150;

interface PageGridProps {
  notebook: Outlined;
  size: number;
  name: string;
  onColumns: (columns: number) => void;
  tileOf: (page: NotebookEntry) => ReactNode;
}

/** Tiles of all pages under their sections. It holds only the rows in sight and draws a row again only when its tiles change, so that scrolling stays light. */
export function PageGrid({ notebook, size, name, onColumns, tileOf }: PageGridProps) {
  const scroller = useRef<HTMLDivElement>(null);
  // What is in sight comes first; what lies beyond it is there before one has scrolled.
  const [isSettled, setSettled] = useState(false);
  useEffect(() => {
    const settling = setTimeout(() => setSettled(true), settlesAfter);
    return () => clearTimeout(settling);
  }, []);
  useKeptFocus(scroller, 'data-page');
  const columns = useColumns(scroller, size + gap);
  const rows = useMemo(() => rowsOf(notebook, columns), [notebook, columns]);
  const high = Math.round(size * 1.414) + under;
  // oxlint-disable-next-line react/incompatible-library -- what it gives is used here only
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: (i) => (rows[i]!.kind === 'section' ? 58 : high),
    overscan: isSettled ? overscan : 0,
    getItemKey: (i) => `${rows[i]!.key}${high}`,
  });
  useEffect(() => onColumns(columns), [columns, onColumns]);
  const moving = useRef(false);
  moving.current = virtual.isScrolling;
  return (
    <div ref={scroller} className="min-h-0 grow overflow-y-auto px-10 pb-24 max-sm:px-4">
      <Moving value={moving}>
        <div
          className="relative"
          style={{ height: virtual.getTotalSize() }}
          role="group"
          aria-label={t`Pages of ${name}`}
        >
          {virtual.getVirtualItems().map((item) => (
            <div
              key={item.key}
              className="absolute inset-x-0 top-0"
              style={{ transform: `translateY(${item.start}px)`, height: item.size }}
            >
              <GridRow row={rows[item.index]!} tileOf={tileOf} />
            </div>
          ))}
        </div>
      </Moving>
    </div>
  );
}

const GridRow = memo(function GridRow({ row, tileOf }: { row: Row; tileOf: (page: NotebookEntry) => ReactNode }) {
  if (row.kind === 'section') return <SectionHead id={row.key} section={row.section} count={row.count} />;
  return (
    <div className="flex pt-3" style={{ gap }}>
      {row.pages.map(tileOf)}
    </div>
  );
});

/** A section's name; what is dropped on it comes to the section's end, also where it has no page yet. */
function SectionHead({ id, section, count }: { id: string; section: NotebookEntry | undefined; count: number }) {
  const { setNodeRef, isOver } = useDroppable({ id: `section ${section?.id ?? root} ${id}` });
  return (
    <h2
      ref={setNodeRef}
      data-testid="overview-section"
      data-name={section?.title ?? ''}
      className={`${isOver ? 'outline-2 outline-primary' : ''} flex h-full items-end gap-2.5 border-b border-base-300 pb-1.5 text-[19px]`}
      style={{ paddingLeft: (section?.depth ?? 0) * 18 }}
    >
      {section && <span className={`mb-1 h-5 w-1 rounded-sm ${fillOf[section.colour] ?? 'bg-spruce'}`} />}
      {section?.title ?? t`In no section`} <span className="font-sans text-[14px] text-quiet">{count}</span>
    </h2>
  );
}
