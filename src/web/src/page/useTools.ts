import { useState } from 'react';
import type { Tool } from './ink/desk';
import { loadTray, type Pen, saveTray } from './ink/pens';

/** What is in the hand: the pens of the tray, the eraser, and whether settings are unfolded. One hand, however many pages lie open. */
export interface Tools {
  tray: Pen[];
  chosen: number;
  eraser: { on: boolean; whole: boolean; size: number };
  unfolded: boolean;
  tool: Tool;
  choose: (index: number) => void;
  press: (index: number) => void;
  changePen: (pen: Pen) => void;
  changeEraser: (change: Partial<Tools['eraser']>) => void;
  toggleEraser: () => void;
  fold: () => void;
}

export function useTools(person: string, first: number): Tools {
  const [tray, setTray] = useState(() => loadTray(person));
  const [chosen, setChosen] = useState(first in tray ? first : 0);
  const [eraser, setEraser] = useState({ on: false, whole: false, size: 300 });
  const [unfolded, setUnfolded] = useState(false);
  const choose = (index: number) => {
    setChosen(index);
    setEraser((before) => ({ ...before, on: false }));
  };
  return {
    tray,
    chosen,
    eraser,
    unfolded,
    tool: eraser.on ? { name: 'eraser', whole: eraser.whole, size: eraser.size } : { name: 'pen', pen: tray[chosen]! },
    choose,
    press: (index) => {
      setUnfolded(index === chosen && !eraser.on ? !unfolded : false);
      choose(index);
    },
    changePen: (pen) => {
      const changed = tray.map((one, i) => (i === chosen ? pen : one));
      setTray(changed);
      saveTray(person, changed);
    },
    changeEraser: (change) => {
      setUnfolded(change.on === true ? (eraser.on ? !unfolded : false) : unfolded);
      setEraser({ ...eraser, ...change });
    },
    toggleEraser: () => setEraser((before) => ({ ...before, on: !before.on })),
    fold: () => setUnfolded(false),
  };
}
