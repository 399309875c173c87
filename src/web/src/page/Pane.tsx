import { may } from '../data/rights';
import { Button } from '../ui/Button';
import { plural, t } from '@lingui/core/macro';
import { useEffect, useRef } from 'react';
import { useLibrary } from '../data/useLibrary';
import { lastPageIn } from '../data/openNotebooks';
import { useNotebook } from '../data/useNotebook';
import { useSpaceOf } from '../data/useShared';
import { useLocks, useSummaries } from '../data/useShelf';
import { LockedPages } from '../locks/LockDialog';
import { defaultPaper } from '../model/items';
import type { Space } from '../server/session';
import { say } from '../ui/saying';
import { OnPage, type PaneProps } from './OnPage';

/** One page with the line above it and the thread below; of two panes, each has its own place in its notebook. */
export function Pane(props: PaneProps) {
  const space = useSpaceOf(props.at.space, props.at.notebook);
  const locks = useLocks(props.at.space);
  const library = useLibrary(props.at.space);
  if (!space) return <p className="grow p-10">{t`There is nothing here that you may see.`}</p>;
  const name = library?.find(props.at.notebook)?.name ?? '';
  return (
    <section
      aria-label={name}
      className="@container relative flex min-w-0 grow basis-0 flex-col border-e border-base-300 last:border-e-0"
      data-testid="pane"
      onPointerDownCapture={props.onTouch}
      onFocusCapture={props.onTouch}
    >
      {locks.get(props.at.notebook) === null ? (
        <LockedPages space={space} notebook={props.at.notebook} name={name} />
      ) : (
        <OpenPane {...props} space={space} isLocked={locks.has(props.at.notebook)} />
      )}
    </section>
  );
}

function OpenPane(props: PaneProps & { space: Space; isLocked: boolean }) {
  const { at, space, onGo } = props;
  const notebook = useNotebook(at.space, at.notebook);
  const summary = useSummaries().get(at.notebook);
  const isThere = notebook?.find(at.page)?.kind === 'page';
  // An old address of a page that moved to another notebook leads there.
  const movedTo = notebook && at.page && !isThere ? notebook.movedTo(at.page) : '';
  const target =
    notebook && !isThere && !movedTo
      ? (notebook.pages.find((one) => one.id === lastPageIn(at.notebook)) ?? notebook.pages[0])
      : undefined;
  const shown = useRef('');
  useEffect(() => {
    if (isThere) shown.current = at.page;
  }, [isThere, at.page]);
  useEffect(() => {
    if (!target) return;
    // Somebody put it there while it lay open here.
    if (at.page && shown.current === at.page) say(t`This page went to the bin. It can be put back from there.`);
    onGo({ ...at, page: target.id }, true);
  }, [target?.id]);
  useEffect(() => {
    if (movedTo) onGo({ ...at, notebook: movedTo }, true);
  }, [movedTo]);
  if (!notebook) return <div className="grow bg-desk" aria-busy="true" />;
  if (isThere) return <OnPage {...props} notebook={notebook} />;
  if (target || movedTo) return null;
  if (!notebook.isHere)
    return (
      <div
        className="grid h-full place-content-center justify-items-center gap-2 bg-desk p-6 text-center"
        data-testid="not-here"
      >
        <p className="font-title text-[19px]">{t`This notebook is not on this device yet`}</p>
        <p className="text-quiet">
          {summary && `${plural(summary.pageCount, { one: 'It has # page.', other: 'It has # pages.' })} `}
          {t`They come as soon as there is a connection. Notebooks that you have opened here can be read and written without one.`}
        </p>
      </div>
    );
  return (
    <div className="grid h-full place-content-center justify-items-center gap-3 bg-desk">
      <p className="font-title text-[19px]">{t`This notebook has no pages yet`}</p>
      {may(space, 'Write') && (
        <Button
          look="primary"
          onClick={() => onGo({ ...at, page: notebook.addPageAfter('', defaultPaper) })}
        >{t`Add the first page`}</Button>
      )}
    </div>
  );
}
