import { t } from '@lingui/core/macro';
import {
  CalendarPlusIcon,
  ClockCounterClockwiseIcon,
  FileArrowDownIcon,
  FilesIcon,
  FolderSimplePlusIcon,
  GraphIcon,
  PencilSimpleIcon,
  TrashIcon,
} from '@phosphor-icons/react';
import { maySeePast } from '../data/rights';
import type { Space } from '../server/session';
import type { MenuEntry } from '../ui/Menu';
import type { Asking, ItemMenu } from './itemMenu';
import type { ShownPlace } from './places';

interface PlaceHands {
  /** The library that is looked at. */
  space: Space | undefined;
  mayWrite: boolean;
  ask: (asking: Asking | { what: 'lens' }) => void;
  go: (path: string) => void;
  onNewFolder: (space: string) => void;
}

/** What can be done to the folder or lens one looks at; who only reads there can look on. */
export function placeEntries(place: ShownPlace, menu: ItemMenu, hands: PlaceHands): MenuEntry[] {
  if (place.lens) return hands.mayWrite ? lensEntries(place, hands) : [];
  const own = hands.mayWrite && place.node?.kind === 'folder' ? folderEntries(place, menu, hands) : [];
  const isFolder = place.libraries.length === 1 && (place.node === undefined || place.node.kind === 'folder');
  return isFolder ? [...own, ...moreEntries(place, hands)] : own;
}

/** What else is made or seen from a folder, or from the head of a library. */
function moreEntries(place: ShownPlace, { space: spaceOf, mayWrite, go }: PlaceHands): MenuEntry[] {
  const { space } = place.libraries[0]!;
  const folder = place.node?.id;
  const planner: MenuEntry = {
    label: t`New planner`,
    testId: 'new-planner',
    icon: <CalendarPlusIcon size={20} weight="light" />,
    onChoose: () => go(`/planner/${space}${folder ? `/${folder}` : ''}`),
  };
  const papers: MenuEntry = {
    label: t`Papers of your own`,
    testId: 'own-papers',
    icon: <FilesIcon size={20} weight="light" />,
    onChoose: () => go(`/papers/${space}`),
  };
  const bring: MenuEntry = {
    label: t`Bring in files`,
    testId: 'bring-files-in',
    icon: <FileArrowDownIcon size={20} weight="light" />,
    onChoose: () => go(`/bring/${space}${folder ? `/${folder}` : ''}`),
  };
  return [
    ...(mayWrite ? [bring, planner] : []),
    {
      label: t`Web of pages`,
      testId: 'folder-web',
      icon: <GraphIcon size={20} weight="light" />,
      onChoose: () => go(`/web/${space}/folder${folder ? `?folder=${folder}` : ''}`),
    },
    ...(maySeePast(spaceOf)
      ? [
          {
            label: folder ? t`The folder as it was` : t`The library as it was`,
            testId: 'folder-past',
            icon: <ClockCounterClockwiseIcon size={20} weight="light" />,
            onChoose: () => go(`/library/${space}${folder ? `/${folder}` : ''}?past=1`),
          },
        ]
      : []),
    ...(mayWrite ? [papers] : []),
  ];
}

function lensEntries({ lens, keeper }: ShownPlace, { ask, go }: PlaceHands): MenuEntry[] {
  return [
    {
      label: t`Name and icon`,
      testId: 'lens-look',
      icon: <PencilSimpleIcon size={20} weight="light" />,
      onChoose: () => ask({ what: 'lens' }),
    },
    {
      label: t`Put into the bin`,
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
  return [
    ...entries,
    {
      label: t`New folder in it`,
      testId: 'menu-inner',
      icon: <FolderSimplePlusIcon size={20} weight="light" />,
      onChoose: () => onNewFolder(item.space),
    },
  ];
}
