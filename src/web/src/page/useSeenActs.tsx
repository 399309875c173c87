import { t } from '@lingui/core/macro';
import { type ReactNode, useState } from 'react';
import type { Seen } from '../core/seenBridge';
import type { OpenNotebook } from '../data/openNotebooks';
import { boxOf } from '../data/seen';
import { addSpot } from '../data/spots';
import { useWorkspace } from '../data/useWorkspace';
import { markHalf } from '../sheet/tools/mark';
import type { SeenActs } from '../sheet/text/SeenOffers';
import type { OpenDocument } from '../sync/openDocument';
import { say } from '../ui/saying';
import { PlanDialog } from './PlanDialog';

/** As much of a line as a note takes easily. */
const mostNote = 300;

/** What can be done with what is seen among the typed words of a page. */
export function useSeenActs({
  here,
  page,
  seen,
  mayWrite,
  mayMark,
  follow,
  preview,
}: {
  here: OpenNotebook;
  page: OpenDocument;
  seen: Seen[];
  mayWrite: boolean;
  /** What is one's own has no marks. */
  mayMark: boolean;
  follow: (target: string, title: string) => void;
  preview: (address: string, below: readonly [number, number, number, number]) => void;
}): { acts: SeenActs; dialog: ReactNode } {
  const { core } = useWorkspace();
  const [planned, setPlanned] = useState<Seen>();
  const acts: SeenActs = {
    follow: (link) => follow(link.value, link.value === link.words ? '' : link.words),
    followUp: mayMark
      ? (day) => {
          const [, top, right, bottom] = boxOf(day.corners.at(-1)!);
          const middle = (top + bottom) / 2;
          const [item] = day.item.split(' ');
          addSpot(
            core,
            page,
            'mark',
            [right + markHalf, middle - markHalf, right + 3 * markHalf, middle + markHalf],
            [item!],
            { mark: 'todo', due: day.value, note: day.line.trim().slice(0, mostNote) },
          );
          say(t`It stands among the follow-ups now.`);
        }
      : undefined,
    plan: setPlanned,
    preview: mayWrite ? (link) => preview(link.value, boxOf(link.corners.flat())) : undefined,
  };
  return {
    acts,
    dialog: planned && <PlanDialog here={here} seen={planned} all={seen} onClose={() => setPlanned(undefined)} />,
  };
}
