import { t } from '@lingui/core/macro';
import { useDraggable, useDroppable } from '@dnd-kit/core';
import { BookmarkSimpleIcon, DotsThreeIcon, StarIcon } from '@phosphor-icons/react';
import type { KeyboardEvent, ReactNode } from 'react';
import type { NotebookEntry, Tag } from '../model/items';
import { fillOf } from '../model/colours';
import { Menu, type MenuEntry } from '../ui/Menu';

interface PageTileProps {
  page: NotebookEntry;
  width: number;
  face: ReactNode;
  tags: Tag[];
  starred: boolean;
  bookmarked: boolean;
  open: boolean;
  chosen: boolean;
  choosing: boolean;
  mayWrite: boolean;
  /** Whether something is being dragged that may be put here. */
  dropping: boolean;
  menu: MenuEntry[];
  onOpen: () => void;
  onChoose: (how: { shift: boolean; more: boolean }) => void;
  onKey: (event: KeyboardEvent) => void;
}

/** A page in the overview: pressed it opens, dragged it goes before or after another. */
export function PageTile({
  page,
  width,
  face,
  tags,
  starred,
  bookmarked,
  open,
  chosen,
  choosing,
  mayWrite,
  dropping,
  menu,
  onOpen,
  onChoose,
  onKey,
}: PageTileProps) {
  const drag = useDraggable({ id: page.id, disabled: !mayWrite });
  return (
    <div className={`relative shrink-0 ${drag.isDragging ? 'opacity-40' : ''}`} style={{ width }}>
      {dropping && <DropHalves page={page.id} />}
      <button
        ref={drag.setNodeRef}
        {...drag.listeners}
        type="button"
        aria-pressed={choosing ? chosen : undefined}
        aria-label={[t`Page ${page.number}`, page.title].filter(Boolean).join(', ')}
        data-testid="overview-page"
        data-page={page.id}
        data-name={page.title}
        className={`grid w-full place-items-center ${chosen ? 'outline-[3px] outline-offset-2 outline-primary' : 'hover:outline-2 hover:outline-offset-1 hover:outline-base-300'}`}
        style={{ height: Math.round(width * 1.414) }}
        onClick={(event) => {
          if (choosing || event.shiftKey || event.ctrlKey || event.metaKey)
            onChoose({ shift: event.shiftKey, more: choosing || event.ctrlKey || event.metaKey });
          else onOpen();
        }}
        onKeyDown={onKey}
      >
        {face}
      </button>
      {bookmarked && (
        <BookmarkSimpleIcon
          size={20}
          weight="fill"
          className="absolute -top-1 end-2 text-[#5f6c35]"
          aria-label={t`Bookmarked`}
        />
      )}
      {open && (
        <span
          className="absolute -start-1.5 -top-1.5 size-3.5 rounded-full border-2 border-base-100 bg-accent"
          role="img"
          aria-label={t`With an open mark`}
        />
      )}
      <div className="flex h-10 items-center gap-1 pt-0.5">
        <p className="min-w-0 grow truncate text-[13px]">
          <span className="text-quiet">{page.number}</span> {page.title}
        </p>
        {starred && <StarIcon size={14} weight="fill" className="shrink-0 text-gold" aria-label={t`Starred`} />}
        {tags.slice(0, 3).map((tag) => (
          <span
            key={tag.id}
            title={tag.path}
            className={`size-2.5 shrink-0 rounded-full ${fillOf[tag.colour] ?? 'bg-spruce'}`}
            role="img"
            aria-label={t`Tag ${tag.path}`}
          />
        ))}
        {menu.length > 0 && (
          <Menu
            label={t`More for page ${page.number}`}
            testId="overview-menu"
            icon={<DotsThreeIcon size={20} />}
            entries={menu}
          />
        )}
      </div>
    </div>
  );
}

/** The halves of a tile that take what is dropped. They are there only during a drag: to register them for every tile that scrolls by would be slow. */
function DropHalves({ page }: { page: string }) {
  const before = useDroppable({ id: `before ${page}` });
  const after = useDroppable({ id: `after ${page}` });
  return (
    <>
      <div
        ref={before.setNodeRef}
        className={`absolute -start-2.5 top-0 z-10 h-[calc(100%-44px)] w-[calc(50%+10px)] ${before.isOver ? 'border-s-[3px] border-primary' : 'pointer-events-none'}`}
      />
      <div
        ref={after.setNodeRef}
        className={`absolute -end-2.5 top-0 z-10 h-[calc(100%-44px)] w-[calc(50%+10px)] ${after.isOver ? 'border-e-[3px] border-primary' : 'pointer-events-none'}`}
      />
    </>
  );
}
