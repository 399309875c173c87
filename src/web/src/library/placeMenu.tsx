import { FolderSimplePlusIcon, PencilSimpleIcon, TrashIcon } from '@phosphor-icons/react';
import type { MenuEntry } from '../ui/Menu';
import type { Asking, ItemMenu } from './itemMenu';
import type { ShownPlace } from './places';

interface PlaceHands {
  ask: (asking: Asking | { what: 'lens' }) => void;
  go: (path: string) => void;
  onNewFolder: (space: string) => void;
}

/** What can be done to the folder or lens one looks at. */
export function placeEntries(place: ShownPlace, menu: ItemMenu, hands: PlaceHands): MenuEntry[] {
  if (place.lens) return lensEntries(place, hands);
  return place.node?.kind === 'folder' ? folderEntries(place, menu, hands) : [];
}

function lensEntries({ lens, keeper }: ShownPlace, { ask, go }: PlaceHands): MenuEntry[] {
  return [
    { label: 'Name and icon', testId: 'lens-look', icon: <PencilSimpleIcon size={20} weight="light" />, onChoose: () => ask({ what: 'lens' }) },
    {
      label: 'Put into the bin',
      testId: 'lens-bin',
      icon: <TrashIcon size={20} weight="light" />,
      onChoose: () => {
        keeper!.toBin(lens!.id);
        go(`/library/${keeper!.space}`);
      },
    },
  ];
}

function folderEntries(place: ShownPlace, menu: ItemMenu, { ask, go, onNewFolder }: PlaceHands): MenuEntry[] {
  const item = place.asItem!;
  const entries = menu.entries([item]).map((entry) => {
    // Its name stands in the heading, where nothing is renamed in place.
    if (entry.testId === 'menu-rename') return { ...entry, onChoose: () => ask({ what: 'look', item }) };
    if (entry.testId !== 'menu-bin') return entry;
    return {
      ...entry,
      onChoose: () => {
        entry.onChoose();
        go(`/library/${item.space}`);
      },
    };
  });
  return [...entries, { label: 'New folder in it', testId: 'menu-inner', icon: <FolderSimplePlusIcon size={20} weight="light" />, onChoose: () => onNewFolder(item.space) }];
}
