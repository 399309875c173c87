import { useEffect } from 'react';
import type { Selection } from '../sheet/selection/useSelection';
import type { Tools } from '../sheet/tools/useTools';

interface SheetKeys {
  active: boolean;
  mayWrite: boolean;
  reading: boolean;
  tools: Tools;
  selection: Selection | undefined;
  undo: () => void;
  redo: () => void;
  takeAll: () => void;
  paste: () => void;
  markHere: () => void;
  full: () => void;
}

/**
 * What keys do on a page: 1 to 9 pens, X the pen before, E, L, S, B, M the other tools, K room, G layers, R reads, F gives the page the whole screen, Shift+M marks what
 * was just written. What is selected is nudged by arrow keys, and copied, cut, doubled by the usual ones.
 */
export function useSheetKeys(keys: SheetKeys): void {
  useEffect(() => {
    if (!keys.active) return;
    const press = (event: KeyboardEvent) => {
      const at = event.target as Element;
      if (event.defaultPrevented || event.altKey || at.closest('input, select, textarea, [contenteditable], dialog'))
        return;
      const command = event.ctrlKey || event.metaKey;
      // In the contents it is the notebook's steps that are taken back.
      if (command && at.closest('[role=tree]')) return;
      const act = command ? commandOf(event, keys) : plainOf(event, keys);
      if (!act) return;
      event.preventDefault();
      act();
    };
    addEventListener('keydown', press);
    return () => removeEventListener('keydown', press);
  });
}

function commandOf(
  event: KeyboardEvent,
  { reading, mayWrite, selection, undo, redo, takeAll, paste }: SheetKeys,
): (() => void) | undefined {
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
    case 'v':
      return mayWrite ? paste : undefined;
    default:
      return undefined;
  }
}

const arrows: Record<string, readonly [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

function plainOf(
  event: KeyboardEvent,
  { mayWrite, reading, tools, selection, markHere, full }: SheetKeys,
): (() => void) | undefined {
  const { key } = event;
  if (key === 'f' || key === 'F') return full;
  if ((key === 'r' || key === 'R') && mayWrite) return () => tools.setReading(!tools.reading);
  if (key === 'Escape') return selection?.leave;
  if (reading) return undefined;
  const nudge = arrows[key];
  if (nudge && selection && selection.taken.items.length > 0) {
    const by = tools.settings.nudge * (event.shiftKey ? 10 : 1);
    return () => selection.move(nudge[0] * by, nudge[1] * by);
  }
  if ((key === 'Delete' || key === 'Backspace') && selection && selection.taken.items.length > 0)
    return selection.erase;
  if (key >= '1' && key <= '9' && Number(key) <= tools.tray.length) return () => tools.choose(Number(key) - 1);
  if (key === 'M') return markHere;
  if (key === 'x') return tools.swap;
  if (key === 'g') return () => tools.togglePanel('layers');
  const kind = ({ e: 'eraser', l: 'loop', m: 'mark', s: 'shape', b: 'fill', k: 'room' } as const)[key];
  return kind && (() => tools.toggle(kind));
}
