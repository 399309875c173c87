import { arrowWays } from '../ui/Grip';
import { useEffect } from 'react';
import type { SheetView } from '../sheet/blotter/sheetView';
import type { Selection } from '../sheet/selection/useSelection';
import { offers } from '../sheet/tools/offers';
import type { Tools } from '../sheet/hand/tool';

interface SheetKeys {
  active: boolean;
  mayWrite: boolean;
  reading: boolean;
  tools: Tools;
  selection: Selection | undefined;
  view: SheetView | undefined;
  undo: () => void;
  redo: () => void;
  takeAll: () => void;
  markHere: () => void;
  full: () => void;
  find: () => void;
}

type Act = (() => void) | undefined;

/** Where a key is for writing in, or for the thing itself. */
export const ownKeys = 'input, select, textarea, [contenteditable], [role=dialog], [role=menu], [role=listbox]';

/**
 * What keys do on a page: 1 to 9 pens, X the pen before, a letter for each tool (`offers`), R reads, F gives the page the whole screen, plus and minus scale, Shift+M marks
 * what was just written. What is selected is nudged by arrow keys, and copied, cut, doubled by the usual ones.
 */
export function useSheetKeys(keys: SheetKeys): void {
  useEffect(() => {
    if (!keys.active) return;
    const press = (event: KeyboardEvent) => {
      const at = event.target as Element;
      if (event.defaultPrevented || event.altKey || at.closest(ownKeys)) return;
      const command = event.ctrlKey || event.metaKey;
      // In the contents it is the notebook's steps that are taken back.
      if (at.closest('[role=tree]')) return;
      const act = command
        ? commandOf(event, keys)
        : (plainOf(event, keys) ?? (keys.tools.habits.letterKeys ? letterOf(event, keys) : undefined));
      if (!act) return;
      event.preventDefault();
      act();
    };
    addEventListener('keydown', press);
    return () => removeEventListener('keydown', press);
  });
}

function commandOf(event: KeyboardEvent, { reading, selection, undo, redo, takeAll, find }: SheetKeys): Act {
  if (event.key.toLowerCase() === 'f') return find;
  if (reading) return undefined;
  const onInk = selection && selection.taken.items.length > 0 ? selection : undefined;
  switch (event.key.toLowerCase()) {
    case 'z':
      return event.shiftKey ? redo : undo;
    case 'y':
      return redo;
    case 'a':
      return takeAll;
    case 'c':
      return onInk?.copy;
    case 'x':
      return onInk?.cut;
    case 'd':
      return onInk?.duplicate;
    default:
      return undefined;
  }
}

/** Keys that are no letters: they work also where letters are turned off. */
function plainOf(event: KeyboardEvent, { reading, tools, selection }: SheetKeys): Act {
  const { key } = event;
  if (key === 'Escape') return selection?.leave ?? (tools.open ? () => tools.unfold(undefined) : undefined);
  const onInk = !reading && selection && selection.taken.items.length > 0 ? selection : undefined;
  if (!onInk) return undefined;
  const nudge = arrowWays[key];
  if (nudge) {
    const by = tools.habits.nudge * (event.shiftKey ? 10 : 1);
    return () => onInk.move(nudge[0] * by, nudge[1] * by);
  }
  return key === 'Delete' || key === 'Backspace' ? onInk.erase : undefined;
}

const zoomStep = 1.25;

function letterOf({ key }: KeyboardEvent, { mayWrite, reading, tools, view, markHere, full }: SheetKeys): Act {
  switch (key) {
    case 'f':
    case 'F':
      return full;
    case '+':
    case '=':
      return () => view?.zoomBy(zoomStep);
    case '-':
      return () => view?.zoomBy(1 / zoomStep);
    case '0':
      return () => view?.fit('width');
    case 'r':
    case 'R':
      return mayWrite ? () => tools.setReading(!tools.reading) : undefined;
    default:
  }
  if (reading) return undefined;
  if (key >= '1' && key <= '9' && Number(key) <= tools.tray.length) return () => tools.choose(Number(key) - 1);
  if (key === 'M') return markHere;
  if (key === 'x') return tools.swap;
  const offer = offers.find((one) => one.key === key);
  return offer && (() => (offer.byKey ?? offer.press)(tools));
}
