import { useVirtualizer } from '@tanstack/react-virtual';
import { type KeyboardEvent, useCallback, useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import type { Group } from '../data/items';
import type { ItemProps } from './ItemParts';
import { Line, Row, Tile, tileHeight, tileWidth } from './ItemShapes';
import type { Item } from '../model/items';
import { phone, useMedia } from '../ui/useMedia';
import type { View } from '../model/libraryView';

type ListRow = { key: string; heading: string; count: number } | { key: string; items: Item[] };

interface ItemListProps {
  groups: Group[];
  view: View;
  scroller: HTMLElement | null;
  /** The thing to scroll to and mark. */
  show?: string;
  propsOf: (item: Item) => ItemProps;
  onKey: (event: KeyboardEvent, item: Item) => void;
}

const headingHeight = 48;
const lineHeight = 48;
/** The words of a row need their height whatever the size of the strip; on a low screen they stand closer, and on a phone the strip is below them. */
const leastRowHeight = 170;
const lowRowHeight = 158;
const phoneRowHeight = 204;

/** A list of any length, of which only what is on the screen is drawn: rows with page strips, covers, or lines. */
export function ItemList({ groups, view, scroller, show, propsOf, onKey }: ItemListProps) {
  const holder = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(900);
  const [above, setAbove] = useState(0);
  useLayoutEffect(() => {
    const element = holder.current!;
    const measure = () => {
      setWidth(element.clientWidth);
      setAbove(element.offsetTop);
    };
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  const columns = view.density === 'covers' ? Math.max(1, Math.floor(width / tileWidth(view.size))) : 1;
  const rows = useMemo(() => rowsOf(groups, columns), [groups, columns]);
  const isPhone = useMedia(phone);
  const isLow = useMedia('(max-height: 820px)');
  const ofStrip = Math.round(79 * (view.size / 5) * 1.41) + 22 + (isLow ? 25 : 33);
  const stripHeight = isPhone ? phoneRowHeight : Math.max(isLow ? lowRowHeight : leastRowHeight, ofStrip);
  const height = view.density === 'rows' ? stripHeight : view.density === 'covers' ? tileHeight(view.size) : lineHeight;
  // The same functions while the rows are the same, or all sizes would be worked out anew with every drawing.
  const estimateSize = useCallback((i: number) => ('heading' in rows[i]! ? headingHeight : height), [rows, height]);
  const getItemKey = useCallback((i: number) => rows[i]!.key, [rows]);
  // oxlint-disable-next-line react/incompatible-library
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller,
    estimateSize,
    getItemKey,
    overscan: 4,
    scrollMargin: above,
  });
  useEffect(() => virtual.measure(), [virtual, height, rows]);
  useEffect(() => {
    const index = show ? rows.findIndex((row) => 'items' in row && row.items.some((item) => item.id === show)) : -1;
    if (index >= 0) virtual.scrollToIndex(index, { align: 'center' });
    // Once, when the things are there.
  }, [show, rows.length > 0]);
  const Shape = view.density === 'rows' ? Row : view.density === 'covers' ? Tile : Line;
  return (
    <div
      ref={holder}
      data-testid="item-list"
      data-density={view.density}
      role="presentation"
      className="relative"
      style={{ height: virtual.getTotalSize() }}
      onKeyDown={(event) => {
        const link = (event.target as Element).closest<HTMLElement>('[data-item]');
        const item =
          link && rows.flatMap((row) => ('items' in row ? row.items : [])).find((one) => one.id === link.dataset.item);
        if (!item) return;
        if (!walk(event, holder.current!, columns)) onKey(event, item);
      }}
    >
      {virtual.getVirtualItems().map(({ index, key, start, size }) => {
        const row = rows[index]!;
        return (
          <div key={key} className="absolute inset-x-0" style={{ top: start - above, height: size }}>
            {'heading' in row ? (
              <h2
                className="flex items-baseline gap-2 border-b border-base-300 pb-1.5 pt-4 text-[18px] leading-tight"
                data-testid="group-heading"
              >
                {row.heading} <span className="font-sans text-[13px] text-quiet">{row.count}</span>
              </h2>
            ) : view.density === 'covers' ? (
              <div className="flex gap-2.5">
                {row.items.map((item) => (
                  <Shape key={item.id} {...propsOf(item)} />
                ))}
              </div>
            ) : (
              <Shape {...propsOf(row.items[0]!)} />
            )}
          </div>
        );
      })}
    </div>
  );
}

function rowsOf(groups: Group[], columns: number): ListRow[] {
  const rows: ListRow[] = [];
  for (const group of groups) {
    if (group.name) rows.push({ key: `heading ${group.name}`, heading: group.name, count: group.items.length });
    for (let i = 0; i < group.items.length; i += columns) {
      const items = group.items.slice(i, i + columns);
      rows.push({ key: `${group.name} ${items[0]!.id}`, items });
    }
  }
  return rows;
}

/** Moves the focus from title to title by arrow keys. */
function walk(event: KeyboardEvent, holder: HTMLElement, columns: number): boolean {
  if (event.altKey || event.ctrlKey || event.metaKey) return false;
  const step = {
    ArrowDown: columns,
    ArrowUp: -columns,
    ArrowRight: columns > 1 ? 1 : 0,
    ArrowLeft: columns > 1 ? -1 : 0,
  }[event.key];
  if (!step) return false;
  const links = [...holder.querySelectorAll<HTMLElement>('[data-item]')];
  const at = links.indexOf(document.activeElement as HTMLElement);
  links[Math.max(0, Math.min(links.length - 1, at + step))]?.focus();
  event.preventDefault();
  return true;
}
