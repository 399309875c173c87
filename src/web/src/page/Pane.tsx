import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { properties, sentenceOf } from '../core/runtime';
import { usePeople } from '../group/usePeople';
import { LockedPages } from '../library/LockDialog';
import { useLibrary } from '../library/useLibrary';
import { useLocks } from '../library/useShelf';
import { sendJson } from '../session/api';
import { type Space, useSession } from '../session/session';
import { HeaderLine } from './HeaderLine';
import { lastPageIn, type OpenNotebook } from './openNotebooks';
import { Sheet } from './Sheet';
import { Thread } from './Thread';
import { type Notebook, useNotebook } from './useNotebook';
import type { Tools } from './useTools';

interface PaneProps {
  at: OpenNotebook;
  tools: Tools;
  tray: boolean;
  active: boolean;
  onTouch: () => void;
  onGo: (at: OpenNotebook, replace?: boolean) => void;
  contents?: { shown: boolean; toggle: () => void };
  onBeside?: () => void;
  onClose?: () => void;
}

/** One page with the line above it and the thread below; of two panes, each has its own place in its notebook. */
export function Pane(props: PaneProps) {
  const { spaces } = useSession();
  const space = spaces.find((one) => one.id === props.at.space);
  const locks = useLocks(props.at.space);
  const library = useLibrary(props.at.space);
  if (!space) return <p className="grow p-10">There is nothing here that you may see.</p>;
  const name = library?.find(props.at.notebook)?.name ?? '';
  return (
    <section aria-label={name} className="@container flex min-w-0 grow basis-0 flex-col border-r border-base-300 last:border-r-0" data-testid="pane" onPointerDownCapture={props.onTouch} onFocusCapture={props.onTouch}>
      {locks.get(props.at.notebook) === null ? <LockedPages space={space} notebook={props.at.notebook} name={name} /> : <OpenPane {...props} space={space} isLocked={locks.has(props.at.notebook)} />}
    </section>
  );
}

function OpenPane(props: PaneProps & { space: Space; isLocked: boolean }) {
  const { at, space, onGo } = props;
  const notebook = useNotebook(at.space, at.notebook);
  const isThere = notebook?.find(at.page)?.kind === 'page';
  const target = notebook && !isThere ? (notebook.pages.find((one) => one.id === lastPageIn(at.notebook)) ?? notebook.pages[0]) : undefined;
  useEffect(() => {
    if (target) onGo({ ...at, page: target.id }, true);
  }, [target?.id]);
  if (!notebook) return <div className="grow bg-desk" aria-busy="true" />;
  if (isThere) return <OnPage {...props} notebook={notebook} />;
  if (target) return null;
  return (
    <div className="grid h-full place-content-center justify-items-center gap-3 bg-desk">
      <p className="font-title text-[19px]">This notebook has no pages yet</p>
      {space.role !== 'reader' && (
        <button type="button" className="btn btn-primary h-10 min-h-10" onClick={() => onGo({ ...at, page: notebook.addPageAfter('') })}>
          Add the first page
        </button>
      )}
    </div>
  );
}

function OnPage({ at, space, notebook, tools, tray, active, isLocked, onGo, contents, onBeside, onClose }: PaneProps & { space: Space; notebook: Notebook; isLocked: boolean }) {
  const library = useLibrary(space.id);
  const people = usePeople(space.id);
  const queries = useQueryClient();
  const [present, setPresent] = useState<string[]>([]);
  const [problem, setProblem] = useState('');
  const mayWrite = space.role !== 'reader';
  const index = notebook.pages.findIndex((one) => one.id === at.page);
  const current = notebook.pages[index]!;
  const go = (to: number) => notebook.pages[to] && onGo({ ...at, page: notebook.pages[to].id });
  const node = library?.find(at.notebook);

  useEffect(() => {
    if (!active) return;
    const turn = (event: KeyboardEvent) => {
      if (event.target !== document.body) return;
      if (event.key === 'PageDown') go(index + 1);
      if (event.key === 'PageUp') go(index - 1);
    };
    addEventListener('keydown', turn);
    return () => removeEventListener('keydown', turn);
  });

  const rename = (title: string) => {
    try {
      if (title !== current.title) notebook.set(at.page, properties.name, title);
      setProblem('');
    } catch (error) {
      setProblem(sentenceOf(error));
    }
  };
  const shut = () =>
    void sendJson('POST', `/api/spaces/${space.id}/locks/${at.notebook}/shut`).then(
      () => queries.invalidateQueries({ queryKey: ['locks', space.id] }),
      (error: Error) => setProblem(error.message),
    );

  return (
    <>
      <HeaderLine
        space={space}
        folder={library?.pathOf(at.notebook).at(-1)}
        notebook={{ id: at.notebook, name: node?.name ?? '' }}
        section={notebook.sectionOf(at.page)}
        page={current}
        count={notebook.pages.length}
        present={people.filter((person) => present.includes(person.id))}
        onRename={mayWrite ? rename : undefined}
        problem={problem}
        {...(contents ? { contents } : {})}
        {...(onBeside ? { onBeside } : {})}
        {...(isLocked ? { onShut: shut } : {})}
        {...(onClose ? { onClose } : {})}
      />
      <Sheet key={at.page} space={space} page={at.page} paper={current.paper} people={people} tools={tools} tray={tray} active={active} onPresent={setPresent} />
      <Thread pages={notebook.pages} index={index} sectionOf={(id) => notebook.sectionOf(id)} onGo={go} onAdd={mayWrite ? () => onGo({ ...at, page: notebook.addPageAfter(at.page, node?.paper) }) : undefined} />
    </>
  );
}
