import type { KeyboardEvent } from 'react';
import type { Asking } from './itemMenu';
import type { Item } from '../model/items';
import type { ItemActions } from './useItemActions';
import type { Selection } from '../ui/useChosen';

interface ListHands {
  /** What stands beside a thing in an order that can be changed by hand; undefined where it cannot. */
  siblings: (item: Item) => Item[] | undefined;
  chosen: Item[];
  selection: Selection;
  actions: ItemActions;
  rename: (id: string) => void;
  ask: (asking: Asking) => void;
  /** Whether single letters are keys. */
  letters: boolean;
}

/** What keys do with the thing that has the focus, or with all that are chosen: space chooses, F2 renames, M moves, T tags, Delete bins, Alt with an arrow puts it one place on. */
export function listKey(
  event: KeyboardEvent,
  item: Item,
  { siblings, chosen, selection, actions, rename, ask, letters }: ListHands,
): void {
  const about = selection.chosen.size > 0 ? chosen : [item];
  const may = about.every(actions.mayWrite);
  const by = event.altKey ? { ArrowUp: -1, ArrowDown: 1, ArrowLeft: -1, ArrowRight: 1 }[event.key] : undefined;
  const after = by === undefined ? undefined : stepFrom(siblings(item), item, by);
  const command = event.ctrlKey || event.metaKey;
  if (event.key === ' ') selection.press(item.id, { shift: event.shiftKey, more: true });
  else if (command && event.key === 'a') selection.all();
  else if (event.key === 'F2' && may) rename(item.id);
  else if (event.key === 'm' && letters && !command && may && about.every((one) => one.node))
    ask({ what: 'move', items: about });
  else if (
    event.key === 't' &&
    letters &&
    !command &&
    may &&
    about.every((one) => one.kind !== 'folder' && one.space === item.space)
  )
    ask({ what: 'tag', items: about });
  else if (event.key === 'Delete' && may) actions.toBin(about);
  else if (after && may) actions.step(item, after);
  else return;
  event.preventDefault();
}

/** Behind what a thing comes that goes one place on or back among those of its kind, pinned ones among pinned ones; undefined where it goes no farther. */
export function stepFrom(siblings: Item[] | undefined, item: Item, by: number): string | undefined {
  const among = siblings?.filter((one) => one.pinned === item.pinned) ?? [];
  const at = among.findIndex((one) => one.id === item.id);
  if (at < 0 || at + by < 0 || at + by >= among.length) return undefined;
  return by > 0 ? among[at + 1]!.id : (among[at - 2]?.id ?? 'first');
}
