import { t } from '@lingui/core/macro';
import { useState } from 'react';
import { useAct } from '../../data/doing';
import type { Personal } from '../../data/usePersonal';
import { withRecent } from '../../model/palettes';
import { firstTray, mostPens, newPen, type Pen } from '../../model/pens';
import { say } from '../../ui/saying';
import type { Pens } from '../hand/tool';

/**
 * The pens of a notebook, or of the person.
 * @param first The number of the pen to begin with, as a jot names it.
 * @param added A pen was added beside that one, and is to be described.
 */
export function usePens(
  personal: Personal | undefined,
  notebook: string,
  first: string | null,
  added: (from: number) => void,
): Pens {
  const tray = personal?.tray(notebook) ?? firstTray;
  const [chosen, setChosen] = useState(Number(first) in tray ? Number(first) : 0);
  const act = useAct();
  const own = personal?.hasOwnTray(notebook) ? notebook : undefined;
  const at = Math.min(chosen, tray.length - 1);
  const setTray = (pens: readonly Pen[]) => personal?.setTray(pens, own);
  return {
    tray,
    chosen: at,
    choose: setChosen,
    changePen: (pen, keepRecent) => {
      setTray(tray.map((one, i) => (i === at ? pen : one)));
      if (keepRecent && personal) personal.setPalettes(withRecent(personal.palettes, pen.colour));
    },
    addPen: () => {
      if (tray.length >= mostPens)
        return say(t`The tray holds ${mostPens} pens. Take one out first; a notebook can have pens of its own.`);
      setTray([...tray.slice(0, at + 1), { ...(tray[at] ?? newPen('ball')) }, ...tray.slice(at + 1)]);
      setChosen(at + 1);
      added(at);
    },
    removePen: () => {
      if (tray.length < 2) return;
      act(t`Took the pen out of the tray.`, () => setTray(tray.filter((_, i) => i !== at)));
      setChosen(Math.max(0, at - 1));
    },
    movePen: (by) => {
      const to = at + by;
      if (to < 0 || to >= tray.length) return;
      const moved = [...tray];
      [moved[at], moved[to]] = [moved[to]!, moved[at]!];
      setTray(moved);
      setChosen(to);
    },
  };
}
