import { t } from '@lingui/core/macro';
import { ClockCounterClockwiseIcon, TrashIcon } from '@phosphor-icons/react';
import { useState } from 'react';
import { Link } from 'react-router';
import type { OpenNotebook } from '../data/openNotebooks';
import type { Notebook } from '../data/useNotebook';
import { WhatHappened } from '../history/WhatHappened';
import { overviewPath } from '../model/items';
import { whenWords } from '../model/time';
import { Button, SignButton } from '../ui/Button';
import { Segments } from '../ui/Segments';

type Within = 'page' | 'notebook';

interface MarginHistoryProps {
  at: OpenNotebook;
  notebook: Notebook;
  mayWrite: boolean;
  /** Looks at the page as it was at a moment, UTC milliseconds; 1 for now. Undefined where that is closed. */
  onPast?: (moment: number) => void;
}

/** The page's history: looking at it as it was, the moments that have a name, and what happened. */
export function MarginHistory({ at, notebook, mayWrite, onPast }: MarginHistoryProps) {
  const [within, setWithin] = useState<Within>('page');
  const { moments } = notebook;
  return (
    <div className="min-h-0 grow overflow-y-auto p-3" data-testid="margin-history-list">
      {onPast ? (
        <Button className="w-full" data-testid="margin-open-history" onClick={() => onPast(1)}>
          <ClockCounterClockwiseIcon size={20} weight="light" />
          {t`The page as it was`}
        </Button>
      ) : (
        <p className="text-quiet" data-testid="past-is-closed">
          {t`In this group readers see pages as they are, and not as they were.`}
        </p>
      )}
      {onPast && moments.length > 0 && (
        <ul className="mt-2" aria-label={t`Moments with a name`}>
          {moments.map((moment) => (
            <li key={moment.id} className="flex items-center border-b border-base-300" data-testid="named-moment">
              <button
                type="button"
                className="min-h-11 min-w-0 grow py-1.5 text-start hover:underline"
                onClick={() => onPast(moment.at)}
              >
                <span className="block truncate">“{moment.name}”</span>
                <span className="block text-[13px] text-quiet">{whenWords(moment.at)}</span>
              </button>
              {mayWrite && (
                <SignButton
                  label={t`Take the name “${moment.name}” off this moment`}
                  data-testid="forget-moment"
                  onClick={() => notebook.forgetMoment(moment.id)}
                >
                  <TrashIcon size={18} weight="light" />
                </SignButton>
              )}
            </li>
          ))}
        </ul>
      )}
      <h2 className="mt-4 mb-2 font-title text-[17px]">{t`What happened`}</h2>
      <Segments
        label={t`Where`}
        value={within}
        onValue={setWithin}
        options={[
          { value: 'page', words: t`On this page` },
          { value: 'notebook', words: t`In the notebook` },
        ]}
      />
      {onPast && within === 'notebook' && (
        <Link
          to={`${overviewPath(at.space, at.notebook)}?past=1`}
          className="mt-2 flex min-h-11 items-center gap-2 px-1 hover:underline"
          data-testid="margin-notebook-past"
        >
          <ClockCounterClockwiseIcon size={20} weight="light" />
          {t`The notebook as it was`}
        </Link>
      )}
      <WhatHappened
        within={{ space: at.space, notebook: at.notebook, ...(within === 'page' ? { page: at.page } : {}) }}
      />
    </div>
  );
}
