import type { KeyboardEvent } from 'react';
import type { Asking } from './itemMenu';
import type { Item } from './model';
import type { ItemActions } from './useItemActions';
import type { Selection } from './useSelection';

interface ListHands {
  items: Item[];
  chosen: Item[];
  selection: Selection;
  actions: ItemActions;
  /** Whether the list stands in an own order, which keys can change. */
  ordered: boolean;
  rename: (id: string) => void;
  ask: (asking: Asking) => void;
}

/** What keys do with the thing that has the focus, or with all that are chosen: space chooses, F2 renames, M moves, T tags, Delete bins, Alt with an arrow puts it one place on. */
export function listKey(
  event: KeyboardEvent,
  item: Item,
  { items, chosen, selection, actions, ordered, rename, ask }: ListHands,
): void {
  const about = selection.chosen.size > 0 ? chosen : [item];
  const may = about.every(actions.mayWrite);
  const step = event.altKey && ordered ? { ArrowUp: -1, ArrowDown: 1 }[event.key] : undefined;
  const command = event.ctrlKey || event.metaKey;
  if (event.key === ' ') selection.press(item.id, { shift: event.shiftKey, more: true });
  else if (command && event.key === 'a') selection.all();
  else if (event.key === 'F2' && may) rename(item.id);
  else if (event.key === 'm' && !command && may && about.every((one) => one.node)) ask({ what: 'move', items: about });
  else if (
    event.key === 't' &&
    !command &&
    may &&
    about.every((one) => one.kind !== 'folder' && one.space === item.space)
  )
    ask({ what: 'tag', items: about });
  else if (event.key === 'Delete' && may) actions.toBin(about);
  else if (step && may) {
    const at = items.indexOf(item);
    const after = step > 0 ? items[at + 1]?.id : (items[at - 2]?.id ?? 'first');
    if (after && at + step >= 0) actions.step(item, after);
  } else return;
  event.preventDefault();
}
