import { useMemo, useState } from 'react';

/** What is chosen in a list: with ctrl one more, with shift all from the last one on; by touch in the choosing mode. */
export interface Selection {
  chosen: ReadonlySet<string>;
  /** Whether a press on a thing chooses it instead of opening it. */
  choosing: boolean;
  setChoosing: (on: boolean) => void;
  press: (id: string, how: { shift: boolean; more: boolean }) => void;
  all: () => void;
  clear: () => void;
}

export function useSelection(order: string[]): Selection {
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [last, setLast] = useState('');
  const [choosing, setChoosing] = useState(false);
  return useMemo(() => {
    // What has gone from the list is not chosen any more.
    const standing = new Set(order.filter((id) => chosen.has(id)));
    return {
      chosen: standing,
      choosing: choosing || standing.size > 0,
      setChoosing,
      press: (id, { shift, more }) => {
        const [from, to] = [order.indexOf(last), order.indexOf(id)].sort((a, b) => a - b);
        if (shift && from !== undefined && from >= 0) setChosen(new Set([...standing, ...order.slice(from, to! + 1)]));
        else if (more)
          setChosen(standing.has(id) ? new Set([...standing].filter((one) => one !== id)) : new Set([...standing, id]));
        else setChosen(new Set([id]));
        setLast(id);
      },
      all: () => setChosen(new Set(order)),
      clear: () => {
        setChosen(new Set());
        setChoosing(false);
      },
    };
  }, [order, chosen, last, choosing]);
}
