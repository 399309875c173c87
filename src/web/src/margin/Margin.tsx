import { FlagPennantIcon, LinkIcon, ListDashesIcon, XIcon } from '@phosphor-icons/react';
import { type ReactNode, useDeferredValue, useMemo, useRef, useState } from 'react';
import { useLibrary } from '../data/useLibrary';
import { useSession } from '../server/session';
import { useNotebookSpots } from '../data/useNotebookSpots';
import { ChangePaperDialog } from '../papers/ChangePaperDialog';
import { Contents } from './ContentsPanel';
import { MarginLinks } from './MarginLinks';
import { MarginMarks } from './MarginMarks';
import type { OpenNotebook } from '../data/openNotebooks';
import { type Notebook, useNotebook } from '../data/useNotebook';

type Tab = 'contents' | 'marks' | 'links';

interface MarginProps {
  at: OpenNotebook;
  /** Whether two pages lie beside each other: each keeps 400 pixels, and what is left is the margin's; where that is too little, it lies over them. */
  isBesideTwo: boolean;
  onGo: (page: string, query?: string) => void;
  onBeside: (page: string) => void;
  onClose: () => void;
}

/** The panel beside the page: contents, marks, links. */
export function Margin(props: MarginProps) {
  const notebook = useNotebook(props.at.space, props.at.notebook);
  const [tab, setTab] = useState<Tab>(() => (localStorage.getItem('quill.margin') as Tab | null) ?? 'contents');
  const show = (shown: Tab) => {
    localStorage.setItem('quill.margin', shown);
    setTab(shown);
  };
  return (
    <aside
      aria-label="Margin"
      data-testid="contents-panel"
      className={`relative flex shrink-0 flex-col border-l border-base-300 bg-base-100 ${
        props.isBesideTwo
          ? 'w-[clamp(208px,100vw-816px,288px)] max-[1023px]:absolute max-[1023px]:inset-y-0 max-[1023px]:right-0 max-[1023px]:z-20 max-[1023px]:w-[288px]'
          : 'w-[288px] max-md:absolute max-md:inset-y-0 max-md:right-0 max-md:z-20'
      }`}
    >
      <div className="flex h-12 shrink-0 items-center border-b border-base-300 pl-2 pr-1">
        <div role="tablist" aria-label="Margin" className="flex">
          <TabButton
            own="contents"
            tab={tab}
            label="Contents"
            icon={<ListDashesIcon size={18} weight="light" />}
            onShow={show}
          />
          <TabButton
            own="marks"
            tab={tab}
            label="Marks"
            icon={<FlagPennantIcon size={18} weight="light" />}
            onShow={show}
          />
          <TabButton own="links" tab={tab} label="Links" icon={<LinkIcon size={18} weight="light" />} onShow={show} />
        </div>
        <button
          type="button"
          aria-label="Close the margin"
          title="Close"
          className="ml-auto grid size-10 shrink-0 place-items-center rounded-md text-quiet hover:bg-base-200"
          onClick={props.onClose}
        >
          <XIcon size={18} />
        </button>
      </div>
      {notebook && <OpenMargin {...props} notebook={notebook} tab={tab} />}
    </aside>
  );
}

function OpenMargin({ at, notebook, tab, onGo, onBeside }: MarginProps & { notebook: Notebook; tab: Tab }) {
  const library = useLibrary(at.space);
  const { spaces } = useSession();
  const spots = useNotebookSpots(at.space, at.notebook, notebook.pages, at.page);
  const [papering, setPapering] = useState<string[]>();
  const mayWrite = spaces.find((space) => space.id === at.space)?.role !== 'reader';
  const { page } = at;
  const contents = useMemo(() => ({ notebook, page, spots }), [notebook, page, spots]);
  // The page that was turned to comes first, and the contents follow it.
  const late = useDeferredValue(contents);
  const latest = useRef({ at, onGo, onBeside });
  latest.current = { at, onGo, onBeside };
  const shown = useMemo(
    () =>
      library && (
        <Contents
          at={{ ...latest.current.at, page: late.page }}
          notebook={late.notebook}
          library={library}
          mayWrite={mayWrite}
          headings={late.spots.filter((spot) => spot.kind === 'heading')}
          onGo={(to) => latest.current.onGo(to)}
          onHeading={(heading) =>
            latest.current.onGo(
              heading.page,
              `at=${Math.round((heading.area[0] + heading.area[2]) / 2)},${Math.round((heading.area[1] + heading.area[3]) / 2)}`,
            )
          }
          onBeside={(to) => latest.current.onBeside(to)}
          onPaper={setPapering}
        />
      ),
    [late, library, mayWrite],
  );
  if (!library) return null;
  return (
    <>
      {tab === 'contents' && shown}
      {tab === 'marks' && (
        <MarginMarks
          at={at}
          notebook={notebook}
          library={library}
          marks={spots.filter((spot) => spot.kind === 'mark')}
          onGo={(mark) => onGo(mark.page, `mark=${mark.id}`)}
        />
      )}
      {tab === 'links' && (
        <MarginLinks
          at={at}
          notebook={notebook}
          links={spots.filter((spot) => spot.kind === 'link' && spot.page === at.page)}
          mayWrite={mayWrite}
        />
      )}
      {papering && (
        <ChangePaperDialog space={at.space} notebook={notebook} ids={papering} onClose={() => setPapering(undefined)} />
      )}
    </>
  );
}

function TabButton({
  own,
  tab,
  label,
  icon,
  onShow,
}: {
  own: Tab;
  tab: Tab;
  label: string;
  icon: ReactNode;
  onShow: (tab: Tab) => void;
}) {
  const isShown = own === tab;
  return (
    <button
      type="button"
      role="tab"
      aria-selected={isShown}
      data-testid={`margin-${own}`}
      className={`flex h-10 items-center gap-1 rounded-md px-1.5 text-[13.5px] ${isShown ? 'bg-base-200 font-semibold' : 'text-quiet hover:bg-base-200'}`}
      onClick={() => onShow(own)}
    >
      {icon}
      {label}
    </button>
  );
}
