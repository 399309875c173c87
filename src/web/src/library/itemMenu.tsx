import { t } from '@lingui/core/macro';
import {
  ArrowBendUpRightIcon,
  ArrowDownIcon,
  ArrowSquareOutIcon,
  ArrowUpIcon,
  ColumnsIcon,
  CopyIcon,
  FilePdfIcon,
  FolderOpenIcon,
  HandshakeIcon,
  LockSimpleIcon,
  PaintBrushIcon,
  PencilSimpleIcon,
  PushPinIcon,
  StarIcon,
  SuitcaseIcon,
  TagIcon,
  TrashIcon,
} from '@phosphor-icons/react';
import type { MenuEntry } from '../ui/Menu';
import { pathTo } from './ItemParts';
import { type Item, root } from '../model/items';
import { say } from '../ui/saying';
import { stepFrom } from './listKeys';
import type { ItemActions } from './useItemActions';
import { thingsWords } from '../data/items';

/** What a list asks for when it needs more than a press: a dialogue about some things. */
export type Asking =
  { what: 'newNotebook' } | { what: 'move' | 'tag'; items: Item[] } | { what: 'look' | 'lock' | 'share'; item: Item };

export interface ItemMenu {
  entries: (items: Item[]) => MenuEntry[];
}

interface MenuHands {
  actions: ItemActions;
  ask: (asking: Asking) => void;
  rename: (id: string) => void;
  go: (path: string) => void;
  /** The page that is open last, beside which another can be opened. */
  besidePath: (item: Item) => string | undefined;
  /** What stands beside a thing in an order that can be changed by hand. */
  siblings: (item: Item) => Item[] | undefined;
}

/** What can be done to one thing, or to all that are chosen. */
export function itemMenu({ actions, ask, rename, go, besidePath, siblings }: MenuHands): ItemMenu {
  const icon = (Shown: typeof StarIcon) => <Shown size={20} weight="light" />;
  return {
    entries: (items) => {
      const item = items[0]!;
      const one = items.length === 1;
      const mayWrite = items.every(actions.mayWrite);
      const placed = items.every((each) => each.kind === 'folder' || each.kind === 'notebook');
      const starred = items.every(actions.isStarred);
      const pinned = items.every((each) => each.pinned);
      const words = one ? t`“${item.title}”` : thingsWords(items.length);
      const beside = one ? besidePath(item) : undefined;
      const entries: (MenuEntry | false)[] = [
        one &&
          mayWrite && {
            label: t`Rename`,
            testId: 'menu-rename',
            icon: icon(PencilSimpleIcon),
            onChoose: () => rename(item.id),
          },
        one &&
          mayWrite &&
          placed && {
            label: item.kind === 'folder' ? t`Colour and icon` : t`Cover and paper`,
            testId: 'menu-look',
            icon: icon(PaintBrushIcon),
            onChoose: () => ask({ what: 'look', item }),
          },
        mayWrite &&
          placed && {
            label: item.node?.jot ? t`File it` : t`Move to`,
            testId: 'menu-move',
            icon: icon(ArrowBendUpRightIcon),
            onChoose: () => ask({ what: 'move', items }),
          },
        mayWrite &&
          items.every((each) => each.kind !== 'folder' && each.space === item.space) && {
            label: t`Tags`,
            testId: 'menu-tags',
            icon: icon(TagIcon),
            onChoose: () => ask({ what: 'tag', items }),
          },
        {
          label: starred ? t`Take the star off` : t`Star`,
          testId: 'menu-star',
          icon: icon(StarIcon),
          onChoose: () => actions.star(items, !starred),
        },
        mayWrite &&
          placed && {
            label: pinned ? t`Unpin` : t`Pin to the top`,
            testId: 'menu-pin',
            icon: icon(PushPinIcon),
            onChoose: () => actions.pin(items, !pinned),
          },
        ...[-1, 1].map(
          (by): MenuEntry | false =>
            one &&
            mayWrite &&
            stepFrom(siblings(item), item, by) !== undefined && {
              label: by < 0 ? t`One place earlier` : t`One place later`,
              testId: by < 0 ? 'menu-earlier' : 'menu-later',
              icon: icon(by < 0 ? ArrowUpIcon : ArrowDownIcon),
              onChoose: () => actions.step(item, stepFrom(siblings(item), item, by)!),
            },
        ),
        mayWrite &&
          placed && {
            label: t`Duplicate`,
            testId: 'menu-duplicate',
            icon: icon(CopyIcon),
            onChoose: () => {
              const cancel = new AbortController();
              say(t`Duplicating ${words}`, { words: t`Cancel`, do: () => cancel.abort(), stays: true });
              void actions.duplicate(items, cancel.signal).then((refused) => say(refused || t`Duplicated ${words}.`));
            },
          },
        one &&
          item.kind !== 'folder' && {
            label: t`Show in folder`,
            testId: 'menu-show',
            icon: icon(FolderOpenIcon),
            onChoose: () =>
              go(`/library/${item.space}/${item.folder === root ? '' : item.folder}?show=${item.notebook}`),
          },
        one &&
          beside !== undefined && {
            label: t`Open beside`,
            testId: 'menu-beside',
            icon: icon(ColumnsIcon),
            onChoose: () => go(beside),
          },
        one &&
          item.kind !== 'folder' && {
            label: t`Open in a new window`,
            testId: 'menu-window',
            icon: icon(ArrowSquareOutIcon),
            onChoose: () => void window.open(pathTo(item), '_blank', 'noopener'),
          },
        one &&
          item.kind === 'notebook' && {
            label: t`Export as PDF`,
            testId: 'menu-pdf',
            icon: icon(FilePdfIcon),
            onChoose: () => actions.takeOut(item),
          },
        one &&
          item.kind === 'notebook' && {
            label: actions.isForRoad(item) ? t`Keep no longer for the road` : t`Keep for the road`,
            testId: 'menu-road',
            icon: icon(SuitcaseIcon),
            onChoose: () => actions.keepForRoad(item, !actions.isForRoad(item)),
          },
        one &&
          placed &&
          actions.mayShare(item) && {
            label: t`Share`,
            testId: 'menu-share',
            icon: icon(HandshakeIcon),
            onChoose: () => ask({ what: 'share', item }),
          },
        one &&
          item.kind === 'notebook' &&
          mayWrite && {
            label: t`Lock`,
            testId: 'menu-lock',
            icon: icon(LockSimpleIcon),
            onChoose: () => ask({ what: 'lock', item }),
          },
        items.every(actions.mayTakeAway) && {
          label: t`Put into the bin`,
          testId: 'menu-bin',
          icon: icon(TrashIcon),
          onChoose: () => actions.toBin(items),
        },
      ];
      return entries.filter((entry) => entry !== false);
    },
  };
}
