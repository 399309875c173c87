import { Toggle } from '../ui/Button';
import { plural, t } from '@lingui/core/macro';
import { useState } from 'react';
import { properties } from '../core/runtime';
import { defaultPaper, type NotebookEntry } from '../model/items';
import { useLibrary } from '../data/useLibrary';
import type { Paper } from '../model/drawing';
import { PaperDialog } from './PaperDialog';
import { doing } from '../data/doing';
import { useWorkspace } from '../data/useWorkspace';
import type { Notebook } from '../data/useNotebook';

type InkMove = 'keep' | 'fit' | 'centre';

const moves: { how: InkMove; words: string; about: string }[] = [
  { how: 'keep', words: t`Leave the ink where it is`, about: t`counted from the upper left corner` },
  { how: 'fit', words: t`Fit the ink to the new size`, about: t`scaled as the sheet is` },
  { how: 'centre', words: t`Centre the ink`, about: t`moved, not scaled` },
];

/** Changes the paper of pages, or of a section's pages; ink, marks and links stay, and where sizes differ may move along. */
export function ChangePaperDialog({
  space,
  notebook,
  ids,
  onClose,
}: {
  space: string;
  notebook: Notebook;
  ids: string[];
  onClose: () => void;
}) {
  const workspace = useWorkspace();
  const { core } = workspace;
  const library = useLibrary(space);
  const [how, setHow] = useState<InkMove>('keep');
  const [reach, setReach] = useState<'chosen' | 'kind' | 'all'>('chosen');
  const entries = ids.flatMap((id) => notebook.find(id) ?? []);
  const sections = entries.filter((entry) => entry.kind === 'section');
  const chosen = notebook.pages.filter((page) => ids.some((id) => notebook.isWithin(page.id, id)));
  const first = chosen[0] ?? notebook.pages[0];
  // Of a planner, all pages of the same kind can be given another style.
  const kind =
    chosen.length > 0 && chosen.every((page) => page.planner && kindOf(page) === kindOf(chosen[0]!))
      ? kindOf(chosen[0]!)
      : undefined;
  const reached =
    reach === 'all'
      ? notebook.pages
      : reach === 'kind'
        ? notebook.pages.filter((page) => kindOf(page) === kind)
        : chosen;
  const apply = (paper: string) =>
    doing(
      workspace,
      plural(reached.length, { one: 'The paper is another.', other: '# pages have another paper.' }),
      () => change(paper),
    );
  const change = async (paper: string) => {
    const pages = reached;
    for (const page of pages) {
      if (page.paper === paper) continue;
      const [from, to] = [page.paper || defaultPaper, paper].map(
        (text) => JSON.parse(core.PaperBridge.Read(text)) as Paper,
      );
      notebook.set(page.id, properties.paper, paper);
      const move = moveOf(how, from!, to!);
      if (!move) continue;
      await notebook.onPage(page.id, (handle, now) => core.SpotBridge.Fit(handle, move.factor, move.dx, move.dy, now));
    }
    // A section's own paper is that of its new pages too.
    for (const section of sections) notebook.set(section.id, properties.paper, paper);
    if (reach === 'all') library?.set(notebook.id, properties.paper, paper);
  };
  const count = reached.length;
  return (
    <PaperDialog
      title={
        count === 1 && sections.length === 0
          ? t`Paper of this page`
          : plural(count, { one: 'Paper of # page', other: 'Paper of # pages' })
      }
      confirm={t`Change the paper`}
      value={first?.paper || defaultPaper}
      space={space}
      onConfirm={apply}
      onClose={onClose}
      extra={
        <>
          <fieldset className="mt-3">
            <legend className="mb-1 font-semibold">{t`Where sizes differ`}</legend>
            {moves.map((one) => (
              <label key={one.how} className="flex min-h-11 cursor-pointer items-center gap-2.5">
                <input
                  type="radio"
                  name="ink"
                  className="radio radio-sm radio-primary"
                  checked={how === one.how}
                  data-testid={`ink-${one.how}`}
                  onChange={() => setHow(one.how)}
                />
                <span className="leading-tight">
                  {one.words}
                  <span className="block text-[12.5px] text-quiet">{one.about}</span>
                </span>
              </label>
            ))}
          </fieldset>
          <fieldset className="mt-2">
            <legend className="mb-1 font-semibold">{t`For`}</legend>
            <div className="flex gap-1.5">
              <Toggle on={reach === 'chosen'} className="grow" onClick={() => setReach('chosen')}>
                {plural(chosen.length, { one: 'this page', other: '# pages' })}
              </Toggle>
              {kind && (
                <Toggle
                  on={reach === 'kind'}
                  data-testid="paper-kind"
                  className="grow"
                  onClick={() => setReach('kind')}
                >
                  {allOfKind[kind] ?? t`all of this kind`}
                </Toggle>
              )}
              <Toggle
                on={reach === 'all'}
                data-testid="paper-all"
                className="grow"
                onClick={() => setReach('all')}
              >{t`the whole notebook`}</Toggle>
            </div>
          </fieldset>
        </>
      }
    />
  );
}

/** year, term, month, week, day or notes; undefined for a page that is none of a planner's own. */
/** All pages of a kind that a planner has. */
const allOfKind: Record<string, string> = {
  year: t`all years`,
  term: t`all terms`,
  month: t`all months`,
  week: t`all weeks`,
  day: t`all days`,
  notes: t`all notes`,
};

function kindOf(page: NotebookEntry): string | undefined {
  return page.planner?.split('/')[0];
}

/** How ink moves along from one sheet to another; undefined when it stays. */
function moveOf(how: InkMove, from: Paper, to: Paper): { factor: number; dx: number; dy: number } | undefined {
  if (how === 'keep' || (from.width === to.width && from.height === to.height)) return undefined;
  if (how === 'centre')
    return { factor: 1, dx: Math.round((to.width - from.width) / 2), dy: Math.round((to.height - from.height) / 2) };
  const factor = Math.min(to.width / from.width, to.height / from.height);
  return { factor, dx: Math.round((to.width - from.width * factor) / 2), dy: 0 };
}
