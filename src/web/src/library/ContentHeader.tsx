import { DotsThreeIcon } from '@phosphor-icons/react';
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
}: ContentHeaderProps) {
  const isFolder = !place.lens && place.libraries.length === 1;
  return (
    <header className="border-b border-base-300 pb-2">
      <div className="flex items-end gap-2 max-sm:flex-wrap">
        <div className="min-w-0 grow max-sm:basis-full">
          <p className="truncate text-quiet" data-testid="library-path">
            {place.above}
          </p>
          <h1 className="text-[30px] leading-tight [overflow-wrap:anywhere]" data-testid="library-heading">
            {place.title}
          </h1>
        </div>
        {menu.length > 0 && (
          <Menu
            label={`More for ${place.title}`}
            testId="folder-menu"
            icon={<DotsThreeIcon size={24} />}
            entries={menu}
          />
        )}
        <JotButton quiet={isFolder && mayWrite} />
        {isFolder && mayWrite && (
          <button
            type="button"
            className="btn btn-primary h-10 min-h-10 px-5 max-sm:px-3"
            data-testid="new-notebook"
            onClick={onNewNotebook}
          >
            New notebook
          </button>
        )}
      </div>
      <div className="pt-1.5">
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
