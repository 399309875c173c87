import { useEffect } from 'react';
import type { Tools } from './useTools';

interface SheetKeys {
  active: boolean;
  mayWrite: boolean;
  reading: boolean;
  tools: Tools;
  undo: () => void;
  redo: () => void;
  takeAll: () => void;
  erase: (() => void) | undefined;
  leave: (() => void) | undefined;
  markHere: () => void;
  full: () => void;
}

/** What keys do on a page: 1 to 9 pens, E, L and M the other tools, R reads, F gives the page the whole screen, Shift+M marks what was just written. */
export function useSheetKeys(keys: SheetKeys): void {
  useEffect(() => {
    if (!keys.active) return;
    const press = (event: KeyboardEvent) => {
      if (event.altKey || (event.target as Element).closest('input, select, textarea, [contenteditable], dialog')) return;
      const command = event.ctrlKey || event.metaKey;
      const act = command ? commandOf(event, keys) : plainOf(event, keys);
      if (!act) return;
      event.preventDefault();
      act();
    };
    addEventListener('keydown', press);
    return () => removeEventListener('keydown', press);
  });
}

function commandOf(event: KeyboardEvent, { reading, undo, redo, takeAll }: SheetKeys): (() => void) | undefined {
  if (reading) return undefined;
  switch (event.key.toLowerCase()) {
    case 'z':
      return event.shiftKey ? redo : undo;
    case 'y':
      return redo;
    case 'a':
      return takeAll;
    default:
      return undefined;
  }
}

function plainOf(event: KeyboardEvent, { mayWrite, reading, tools, erase, leave, markHere, full }: SheetKeys): (() => void) | undefined {
  const { key } = event;
  if (key === 'f' || key === 'F') return full;
  if ((key === 'r' || key === 'R') && mayWrite) return () => tools.setReading(!tools.reading);
  if (key === 'Escape') return leave;
  if (reading) return undefined;
  if (key === 'Delete') return erase;
  if (key >= '1' && key <= String(tools.tray.length)) return () => tools.choose(Number(key) - 1);
  if (key === 'M') return markHere;
  const kind = ({ e: 'eraser', l: 'loop', m: 'mark' } as const)[key];
  return kind && (() => tools.toggle(kind));
}
