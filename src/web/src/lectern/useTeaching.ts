import { t } from '@lingui/core/macro';
import { useEffect } from 'react';
import { sentenceOf } from '../core/runtime';
import { useTeachesIn } from '../data/useLecterns';
import { useWorkspace } from '../data/useWorkspace';
import { sendJson } from '../server/api';
import { say } from '../ui/saying';

interface Opened {
  id: string;
  openedAt: number;
}

const pathOf = (space: string, notebook: string) => `/api/spaces/${space}/notebooks/${notebook}/lectern`;

/** Opening a lectern in a notebook, and closing the one that one stands at. */
export function useTeaching(): {
  open: (space: string, notebook: string, page: string) => Promise<void>;
  close: (space: string, notebook: string) => Promise<void>;
} {
  const { lecterns } = useWorkspace();
  return {
    open: async (space, notebook, page) => {
      try {
        const opened = await sendJson<Opened>('POST', pathOf(space, notebook));
        lecterns.lead({ ...opened, space, notebook }, page);
        say(t`The lectern is open. Whoever comes into the notebook can follow you.`);
      } catch (problem) {
        say(sentenceOf(problem));
      }
    },
    close: async (space, notebook) => {
      try {
        await sendJson('DELETE', pathOf(space, notebook));
        lecterns.stepDown();
      } catch (problem) {
        say(sentenceOf(problem));
      }
    },
  };
}

/** Shows the page that the leader is on, as long as they are in the notebook they teach from. */
export function useShowingFrom(notebook: string, page: string, active: boolean): void {
  const { lecterns } = useWorkspace();
  const leads = useTeachesIn(notebook) && active;
  useEffect(() => {
    if (leads) lecterns.turn(page);
  }, [lecterns, leads, page]);
}
