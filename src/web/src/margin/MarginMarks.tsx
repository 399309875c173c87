import { t } from '@lingui/core/macro';
import { useState } from 'react';
import type { Library } from '../data/Library';
import { InkCut } from '../spots/InkCut';
import { kindsOf, MarkSign } from '../spots/markKinds';
import { aroundSpot } from '../data/spots';
import type { PlacedSpot } from '../data/useNotebookSpots';
import type { OpenNotebook } from '../data/openNotebooks';
import type { Notebook } from '../data/useNotebook';

const cutWidth = 252;
const cutHeight = 46;
const mostCut = 40;

/** The marks of the notebook, each with the ink it stands by; those of this page first. */
export function MarginMarks({
  at,
  notebook,
  library,
  marks,
  onGo,
}: {
  at: OpenNotebook;
  notebook: Notebook;
  library: Library;
  marks: PlacedSpot[];
  onGo: (mark: PlacedSpot) => void;
}) {
  const [all, setAll] = useState(false);
  const kinds = kindsOf(library);
  const shown = marks
    .filter((mark) => all || !mark.doneAt)
    .sort((a, b) => Number(b.page === at.page) - Number(a.page === at.page));
  return (
    <div className="min-h-0 grow overflow-y-auto p-3" data-testid="margin-mark-list">
      <label className="flex min-h-10 cursor-pointer items-center gap-2 text-[13.5px] text-quiet">
        <input
          type="checkbox"
          className="checkbox checkbox-sm"
          checked={all}
          onChange={(event) => setAll(event.target.checked)}
        />{' '}
        {t`Those ticked off too`}
      </label>
      {shown.length === 0 && (
        <p className="py-2 text-quiet">{t`No marks here. Take up “Mark” in the tray and press where something is open, or worth keeping.`}</p>
      )}
      <ul>
        {shown.slice(0, mostCut).map((mark) => {
          const kind = kinds.find((one) => one.id === mark.mark);
          const page = notebook.find(mark.page);
          return (
            <li key={mark.id}>
              <button
                type="button"
                data-testid="margin-mark"
                className="w-full border-b border-base-300 py-2.5 text-start hover:bg-base-200"
                onClick={() => onGo(mark)}
              >
                <span className="mb-1.5 flex items-center gap-2">
                  <MarkSign kind={kind} size={22} done={Boolean(mark.doneAt)} />
                  <span className="min-w-0 grow truncate font-semibold">{kind?.words ?? t`Mark`}</span>
                  <span className="text-[13px] text-quiet">
                    {mark.page === at.page ? t`this page` : t`page ${page?.number ?? ''}`}
                  </span>
                </span>
                <span className="block overflow-hidden border border-base-300 bg-paper">
                  <InkCut
                    space={at.space}
                    page={mark.page}
                    paper={page?.paper ?? ''}
                    area={aroundSpot(mark.area, cutWidth, cutHeight)}
                    width={cutWidth}
                    height={cutHeight}
                  />
                </span>
                {mark.note && <span className="mt-1 line-clamp-2 block text-[13.5px]">{mark.note}</span>}
              </button>
            </li>
          );
        })}
      </ul>
    </div>
  );
}
