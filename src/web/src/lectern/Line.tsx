import { t } from '@lingui/core/macro';
import { LecternIcon } from '@phosphor-icons/react';
import type { ReactNode } from 'react';
import type { OpenNotebook } from '../data/openNotebooks';
import type { Notebook } from '../data/useNotebook';
import type { PlacedSpot } from '../data/useNotebookSpots';
import type { Writer } from '../data/usePeople';
import type { Space } from '../server/session';
import type { Tools } from '../sheet/hand/tool';

export interface LecternLineProps {
  at: OpenNotebook;
  space: Space;
  notebook: Notebook;
  people: Writer[];
  /** The marks of the notebook. */
  marks: PlacedSpot[];
  tools: Tools;
  onGo: (page: string, mark?: string) => void;
}

/** The line itself. */
export function Line({ testId, words, children }: { testId: string; words: ReactNode; children: ReactNode }) {
  return (
    <div
      role="region"
      aria-label={t`Lectern`}
      data-testid={testId}
      className="flex min-h-12 shrink-0 flex-wrap items-center gap-x-1 border-b max-sm:py-1.5 border-base-300 bg-base-200 ps-4 pe-2"
    >
      <LecternIcon size={22} weight="light" className="shrink-0 text-primary" aria-hidden="true" />
      <p role="status" className="me-auto min-w-0 truncate ps-2 max-sm:max-w-[calc(100%-40px)]">
        {words}
      </p>
      {children}
    </div>
  );
}
