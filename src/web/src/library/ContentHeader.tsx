import { Button } from '../ui/Button';
import { t } from '@lingui/core/macro';
import { DotsThreeIcon, PlusIcon, SlidersHorizontalIcon } from '@phosphor-icons/react';
import { type ReactNode, useState } from 'react';
import { JotButton } from '../jot/JotButton';
import { Menu, type MenuEntry } from '../ui/Menu';
import type { ShownPlace } from './places';
import type { Selection } from '../ui/useChosen';
import type { View } from '../model/libraryView';
import { ViewControls } from './ViewControls';

interface ContentHeaderProps {
  place: ShownPlace;
  view: View;
  onView: (view: View) => void;
  filtering: boolean;
  onFilter: ((on: boolean) => void) | undefined;
  selection: Selection;
  mayWrite: boolean;
  menu: MenuEntry[];
  onNewNotebook: () => void;
  /** What stands before the title, where the folders are folded away. */
  lead: ReactNode;
}

/** What place this is, what can be made in it, and how it is shown. */
export function ContentHeader({
  place,
  view,
  onView,
  filtering,
  onFilter,
  selection,
  mayWrite,
  menu,
  onNewNotebook,
  lead,
}: ContentHeaderProps) {
  // On a phone what orders and narrows down is behind one button, so that the first notebook is in sight.
  const [showing, setShowing] = useState(false);
  const isFolder = !place.lens && place.libraries.length === 1;
  return (
    <header className="border-b border-base-300 pb-2 max-sm:pb-1.5">
      <div className="flex items-end gap-2 max-lg:items-center max-sm:gap-1">
        {lead}
        <div className="min-w-0 grow">
          <p className="truncate text-quiet max-sm:hidden" data-testid="library-path">
            {place.above}
          </p>
          <h1
            className="text-[30px] leading-tight [overflow-wrap:anywhere] max-sm:line-clamp-1 max-sm:text-[22px]"
            data-testid="library-heading"
          >
            {place.title}
          </h1>
        </div>
        {menu.length > 0 && (
          <Menu
            label={t`More for ${place.title}`}
            testId="folder-menu"
            icon={<DotsThreeIcon size={24} />}
            entries={menu}
          />
        )}
        {!(isFolder && mayWrite) && <JotButton wide />}
        {isFolder && mayWrite && (
          <Button
            look="primary"
            className="max-sm:size-11 max-sm:px-0"
            data-testid="new-notebook"
            title={t`New notebook`}
            onClick={onNewNotebook}
          >
            <PlusIcon size={20} className="sm:hidden" />
            <span className="max-sm:sr-only">{t`New notebook`}</span>
          </Button>
        )}
        <button
          type="button"
          aria-label={t`How it is shown`}
          title={t`How it is shown`}
          aria-expanded={showing}
          data-testid="how-shown"
          className={`grid size-11 shrink-0 place-items-center rounded-md text-quiet hover:bg-base-200 sm:hidden ${showing ? 'bg-base-200' : ''}`}
          onClick={() => setShowing(!showing)}
        >
          <SlidersHorizontalIcon size={22} weight="light" />
        </button>
      </div>
      <div className={`pt-1.5 ${showing ? '' : 'max-sm:hidden'}`}>
        <ViewControls
          view={view}
          onView={onView}
          filtering={filtering}
          {...(onFilter ? { onFilter } : {})}
          choosing={selection.choosing}
          onChoosing={(on) => (on ? selection.setChoosing(true) : selection.clear())}
          nested={place.folders.length > 0}
        />
      </div>
    </header>
  );
}
