import { useEffect, useState } from 'react';
import { Navigate, useNavigate, useParams } from 'react-router';
import { sentenceOf } from '../core/runtime';
import { usePeople } from '../group/usePeople';
import { useLibrary } from '../library/useLibrary';
import { type Space, useSession } from '../session/session';
import { HeaderLine } from './HeaderLine';
import { Sheet } from './Sheet';
import { Thread } from './Thread';
import { usePages } from './usePages';

const lastPlace = (notebook: string) => `quill.place.${notebook}`;

/** A page on the desk: the line above the sheet, the sheet with its tray, the thread below. */
export function PageScreen() {
  const { space: spaceId = '', notebook = '', page = '' } = useParams();
  const { spaces } = useSession();
  const space = spaces.find((one) => one.id === spaceId);
  const own = usePages(spaceId, notebook);
  if (!space) return <p className="p-10">There is nothing here that you may see.</p>;
  if (!own) return null;
  const current = own.pages.find((one) => one.id === page);
  if (current) {
    localStorage.setItem(lastPlace(notebook), page);
    return <OnPage space={space} notebook={notebook} page={page} own={own} />;
  }
  const left = localStorage.getItem(lastPlace(notebook));
  const target = own.pages.find((one) => one.id === left) ?? own.pages[0];
  if (target) return <Navigate to={`/page/${spaceId}/${notebook}/${target.id}`} replace />;
  return <Empty mayWrite={space.role !== 'reader'} onAdd={() => own.addAfter('')} />;
}

function Empty({ mayWrite, onAdd }: { mayWrite: boolean; onAdd: () => void }) {
  return (
    <div className="grid h-full place-content-center justify-items-center gap-3 bg-desk">
      <p className="font-title text-[19px]">This notebook has no pages yet</p>
      {mayWrite && (
        <button type="button" className="btn btn-primary h-10 min-h-10" onClick={onAdd}>
          Add the first page
        </button>
      )}
    </div>
  );
}

function OnPage({ space, notebook, page, own }: { space: Space; notebook: string; page: string; own: NonNullable<ReturnType<typeof usePages>> }) {
  const navigate = useNavigate();
  const library = useLibrary(space.id);
  const people = usePeople(space.id);
  const [present, setPresent] = useState<string[]>([]);
  const [problem, setProblem] = useState('');
  const index = own.pages.findIndex((one) => one.id === page);
  const current = own.pages[index]!;
  const go = (to: number) => own.pages[to] && void navigate(`/page/${space.id}/${notebook}/${own.pages[to].id}`);

  useEffect(() => {
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
      if (title !== current.title) own.setTitle(page, title);
      setProblem('');
    } catch (error) {
      setProblem(sentenceOf(error));
    }
  };

  return (
    <div className="flex h-full flex-col">
      <HeaderLine
        space={space}
        folder={library?.pathOf(notebook).at(-1)}
        notebook={{ id: notebook, name: library?.find(notebook)?.name ?? '' }}
        page={current}
        number={index + 1}
        count={own.pages.length}
        present={people.filter((person) => present.includes(person.id))}
        onRename={space.role === 'reader' ? undefined : rename}
        problem={problem}
      />
      <Sheet key={page} space={space} page={page} paper={current.paper} people={people} onPresent={setPresent} />
      <Thread pages={own.pages} index={index} onGo={go} onAdd={space.role === 'reader' ? undefined : () => void navigate(`/page/${space.id}/${notebook}/${own.addAfter(page, current.paper)}`)} />
    </div>
  );
}
