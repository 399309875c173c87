import { useState } from 'react';
import type { Tool } from './ink/desk';
import { loadTray, type Pen, saveTray } from './ink/pens';

export type HeldKind = 'pen' | 'eraser' | 'loop' | 'mark';

/** What is in the hand: the pens of the tray, the other tools, and whether settings are unfolded. One hand, however many pages lie open. */
export interface Tools {
  tray: Pen[];
  chosen: number;
  held: HeldKind;
  eraser: { whole: boolean; size: number };
  loop: { box: boolean; share: number };
  /** The kind of mark that a press puts down. */
  mark: string;
  reading: boolean;
  zoomLocked: boolean;
  unfolded: boolean;
  tool: Tool;
  choose: (index: number) => void;
  press: (index: number) => void;
  /** Takes a tool up; when it is in the hand already, unfolds its settings. */
  pressTool: (kind: HeldKind) => void;
  changePen: (pen: Pen) => void;
  changeEraser: (change: Partial<Tools['eraser']>) => void;
  changeLoop: (change: Partial<Tools['loop']>) => void;
  changeMark: (mark: string) => void;
  toggle: (kind: HeldKind) => void;
  setReading: (on: boolean) => void;
  setZoomLocked: (on: boolean) => void;
  fold: () => void;
}

export function useTools(person: string, first: number): Tools {
  const [tray, setTray] = useState(() => loadTray(person));
  const [chosen, setChosen] = useState(first in tray ? first : 0);
  const [held, setHeld] = useState<HeldKind>('pen');
  const [eraser, setEraser] = useState({ whole: false, size: 300 });
  const [loop, setLoop] = useState({ box: false, share: 0.5 });
  const [mark, setMark] = useState('ask');
  const [reading, setReading] = useState(false);
  const [zoomLocked, setZoomLocked] = useState(false);
  const [unfolded, setUnfolded] = useState(false);
  const choose = (index: number) => {
    setChosen(index);
    setHeld('pen');
  };
  return {
    tray,
    chosen,
    held,
    eraser,
    loop,
    mark,
    reading,
    zoomLocked,
    unfolded,
    tool: toolOf(reading, held, { pen: tray[chosen]!, eraser, loop }),
    choose,
    press: (index) => {
      setUnfolded(index === chosen && held === 'pen' ? !unfolded : false);
      choose(index);
    },
    pressTool: (kind) => {
      setUnfolded(held === kind ? !unfolded : kind === 'mark');
      setHeld(kind);
    },
    changePen: (pen) => {
      const changed = tray.map((one, i) => (i === chosen ? pen : one));
      setTray(changed);
      saveTray(person, changed);
    },
    changeEraser: (change) => setEraser({ ...eraser, ...change }),
    changeLoop: (change) => setLoop({ ...loop, ...change }),
    changeMark: setMark,
    toggle: (kind) => setHeld((before) => (before === kind ? 'pen' : kind)),
    setReading,
    setZoomLocked,
    fold: () => setUnfolded(false),
  };
}

function toolOf(reading: boolean, held: HeldKind, { pen, eraser, loop }: { pen: Pen; eraser: Tools['eraser']; loop: Tools['loop'] }): Tool {
  if (reading) return { name: 'read' };
  if (held === 'eraser') return { name: 'eraser', ...eraser };
  if (held === 'loop') return { name: loop.box ? 'box' : 'loop', share: loop.share };
  return held === 'mark' ? { name: 'mark' } : { name: 'pen', pen };
}
