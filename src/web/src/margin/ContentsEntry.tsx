import { t } from '@lingui/core/macro';
import { useDraggable, useDroppable } from '@dnd-kit/core';
import { DotsThreeIcon, TagIcon } from '@phosphor-icons/react';
import { type KeyboardEvent, type MouseEvent, type ReactNode } from 'react';
import type { NotebookEntry } from '../model/items';
import { fillOf } from '../model/colours';
import { InkCut } from '../spots/InkCut';
import type { PlacedSpot } from '../data/useNotebookSpots';
import { Menu, type MenuEntry } from '../ui/Menu';
import { RenameField } from '../ui/RenameField';

/** Dropped here, a thing goes to the end of the notebook, out of all sections. */
export function EndTarget() {
  const { setNodeRef, isOver } = useDroppable({ id: 'into ' });
  return <li ref={setNodeRef} role="none" className={`h-12 ${isOver ? 'border-t-[3px] border-primary' : ''}`} />;
}

interface EntryRowProps {
  entry: NotebookEntry;
  isHere: boolean;
  isChosen: boolean;
  mayWrite: boolean;
  tags: string[];
  renaming: boolean;
  menu: MenuEntry[];
  onPress: (event: MouseEvent) => void;
  onRename: (title: string) => Promise<string>;
  onRenameEnd: () => void;
  onKey: (event: KeyboardEvent) => void;
  /** The headings taken from the page. */
  below?: ReactNode;
}

/** A section or page. Dropped on a section, things go into it; on a page's lower edge, after it. */
export function EntryRow({
  entry,
  isHere,
  isChosen,
  mayWrite,
  tags,
  renaming,
  menu,
  onPress,
  onRename,
  onRenameEnd,
  onKey,
  below,
}: EntryRowProps) {
  const drag = useDraggable({ id: entry.id, disabled: !mayWrite || renaming });
  const drop = useDroppable({ id: `${entry.kind === 'section' ? 'into' : 'after'} ${entry.id}`, disabled: !mayWrite });
  const isSection = entry.kind === 'section';
  return (
    <li
      ref={drop.setNodeRef}
      role="treeitem"
      aria-level={entry.depth + 1}
      aria-selected={isChosen}
      aria-current={isHere ? 'page' : undefined}
      data-testid={entry.kind}
      data-name={entry.title}
      className={`pe-1 ${drop.isOver ? (isSection ? 'outline-2 -outline-offset-2 outline-primary' : 'shadow-[inset_0_-3px_0_var(--color-primary)]') : ''}`}
    >
      <div
        className={`flex min-h-10 items-center rounded-md ${isChosen ? 'bg-base-200 ring-1 ring-primary ring-inset' : isHere ? 'bg-base-200' : 'hover:bg-base-200'} ${drag.isDragging ? 'opacity-40' : ''}`}
        style={{ paddingLeft: 12 + entry.depth * 16 }}
      >
        {renaming ? (
          <RenameField
            name={entry.title}
            label={t`New name`}
            testId="entry-name"
            className="h-9"
            placeholder={isSection ? '' : t`Untitled page`}
            onRename={onRename}
            onEnd={onRenameEnd}
          />
        ) : (
          <button
            ref={drag.setNodeRef}
            {...drag.listeners}
            type="button"
            data-testid="entry-press"
            data-entry={entry.id}
            className={`flex min-h-10 min-w-0 grow items-center gap-2.5 text-start ${isHere ? 'font-semibold' : ''}`}
            onClick={onPress}
            onKeyDown={onKey}
            onDoubleClick={() => mayWrite && menu[0]?.onChoose()}
          >
            {isSection ? (
              <span className={`h-5 w-1 shrink-0 rounded-sm ${fillOf[entry.colour] ?? 'bg-spruce'}`} />
            ) : (
              <span className="w-6 shrink-0 text-end text-[13px] font-normal text-quiet">{entry.number}</span>
            )}
            <span
              className={`min-w-0 grow truncate ${isSection ? 'font-title text-[15px]' : ''} ${entry.title ? '' : 'text-quiet'}`}
            >
              {entry.title || t`Untitled page`}
            </span>
            {tags.length > 0 && (
              <TagIcon size={14} className="shrink-0 text-quiet" aria-label={t`Tags: ${tags.join(', ')}`} />
            )}
          </button>
        )}
        {menu.length > 0 && !renaming && (
          <Menu
            label={t`More for ${entry.title || t`page ${entry.number}`}`}
            testId="entry-menu"
            icon={<DotsThreeIcon size={20} />}
            entries={menu}
          />
        )}
      </div>
      {below}
    </li>
  );
}

const cutWidth = 168;
const cutHeight = 30;

/** A heading taken from a page: shown as the ink it was made from, or in words where it has any. */
export function HeadingEntry({
  space,
  heading,
  paper,
  depth,
  menu,
  onPress,
}: {
  space: string;
  heading: PlacedSpot;
  paper: string;
  depth: number;
  menu: MenuEntry[];
  onPress: () => void;
}) {
  const [left, top, right, bottom] = heading.area;
  const high = Math.max(bottom - top + 120, ((right - left + 120) * cutHeight) / cutWidth);
  const middle = (top + bottom) / 2;
  const area = [left - 60, middle - high / 2, left - 60 + (high * cutWidth) / cutHeight, middle + high / 2] as const;
  return (
    <div
      className="flex items-center rounded-md hover:bg-base-200"
      style={{ paddingLeft: 46 + (depth + Number(heading.level ?? 1) - 1) * 16 }}
    >
      <button
        type="button"
        data-testid="contents-heading"
        className="flex min-h-10 min-w-0 grow items-center text-start"
        aria-label={heading.title || t`A heading from the page`}
        onClick={onPress}
      >
        {heading.title ? (
          <span className="truncate text-[13.5px]">{heading.title}</span>
        ) : (
          <span className="min-w-0 overflow-hidden rounded-sm bg-paper px-1">
            <InkCut
              space={space}
              page={heading.page}
              paper={paper}
              area={area}
              width={cutWidth}
              height={cutHeight}
              only={heading.id}
            />
          </span>
        )}
      </button>
      {menu.length > 0 && (
        <Menu
          label={t`More for this heading`}
          testId="heading-menu"
          icon={<DotsThreeIcon size={20} />}
          entries={menu}
        />
      )}
    </div>
  );
}
