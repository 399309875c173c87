import { may, maySeePast } from '../data/rights';
import { SignButton } from '../ui/Button';
import { Tabs } from '@base-ui/react/tabs';
import { t } from '@lingui/core/macro';
import {
  ClockCounterClockwiseIcon,
  FlagPennantIcon,
  LinkIcon,
  ListDashesIcon,
  UsersIcon,
  XIcon,
} from '@phosphor-icons/react';
import { type ReactNode, useDeferredValue, useMemo, useRef, useState } from 'react';
import { useLibrary } from '../data/useLibrary';
import { useSpaceOf } from '../data/useShared';
import { useNotebookSpots } from '../data/useNotebookSpots';
import { ChangePaperDialog } from '../papers/ChangePaperDialog';
import { Contents } from './ContentsPanel';
import { MarginLinks } from './MarginLinks';
import { MarginHistory } from './MarginHistory';
import { MarginPeople } from './MarginPeople';
import { MarginMarks } from './MarginMarks';
import type { OpenNotebook } from '../data/openNotebooks';
import { type Notebook, useNotebook } from '../data/useNotebook';

type Tab = 'contents' | 'marks' | 'links' | 'people' | 'history';

interface MarginProps {
  at: OpenNotebook;
  /** Whether two pages lie beside each other: each keeps 400 pixels, and what is left is the margin's; where that is too little, it lies over them. */
  isBesideTwo: boolean;
  onGo: (page: string, query?: string) => void;
  onBeside: (page: string) => void;
  onClose: () => void;
}

/** The panel beside the page: contents, marks, links, people, history. */
export function Margin(props: MarginProps) {
  const notebook = useNotebook(props.at.space, props.at.notebook);
  const [tab, setTab] = useState<Tab>(() => (localStorage.getItem('quill.margin') as Tab | null) ?? 'contents');
  const show = (shown: Tab) => {
    localStorage.setItem('quill.margin', shown);
    setTab(shown);
  };
  return (
    <Tabs.Root
      value={tab}
      onValueChange={(value) => show(value as Tab)}
      render={<aside />}
      aria-label={t`Margin`}
      data-testid="contents-panel"
      className={`relative flex shrink-0 flex-col border-s border-base-300 bg-base-100 ${
        props.isBesideTwo
          ? 'w-[clamp(208px,100vw-816px,288px)] max-[1023px]:absolute max-[1023px]:inset-y-0 max-[1023px]:end-0 max-[1023px]:z-20 max-[1023px]:w-[288px]'
          : 'w-[288px] max-md:absolute max-md:inset-y-0 max-md:end-0 max-md:z-20'
      }`}
    >
      <div className="flex h-12 shrink-0 items-center border-b border-base-300 ps-2 pe-1">
        <Tabs.List aria-label={t`Margin`} className="flex min-w-0" activateOnFocus>
          <TabButton own="contents" label={t`Contents`} icon={<ListDashesIcon size={18} weight="light" />} />
          <TabButton own="marks" label={t`Marks`} icon={<FlagPennantIcon size={18} weight="light" />} />
          <TabButton own="links" label={t`Links`} icon={<LinkIcon size={18} weight="light" />} />
          <TabButton own="people" label={t`People`} icon={<UsersIcon size={18} weight="light" />} />
          <TabButton own="history" label={t`History`} icon={<ClockCounterClockwiseIcon size={18} weight="light" />} />
        </Tabs.List>
        <SignButton label={t`Close the margin`} title={t`Close`} className="ms-auto" onClick={props.onClose}>
          <XIcon size={18} />
        </SignButton>
      </div>
      {notebook && <OpenMargin {...props} notebook={notebook} />}
    </Tabs.Root>
  );
}

function OpenMargin({ at, notebook, onGo, onBeside }: MarginProps & { notebook: Notebook }) {
  const library = useLibrary(at.space);
  const spots = useNotebookSpots(at.space, at.notebook, notebook.pages, at.page);
  const [papering, setPapering] = useState<string[]>();
  const space = useSpaceOf(at.space, at.notebook);
  const mayWrite = may(space, 'Write');
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
      <Tabs.Panel value="contents" className={panel}>
        {shown}
      </Tabs.Panel>
      <Tabs.Panel value="marks" className={panel}>
        <MarginMarks
          at={at}
          notebook={notebook}
          library={library}
          marks={spots.filter((spot) => spot.kind === 'mark')}
          onGo={(mark) => onGo(mark.page, `mark=${mark.id}`)}
        />
      </Tabs.Panel>
      <Tabs.Panel value="links" className={panel}>
        <MarginLinks
          at={at}
          notebook={notebook}
          links={spots.filter((spot) => spot.kind === 'link' && spot.page === at.page)}
          mayWrite={mayWrite}
        />
      </Tabs.Panel>
      <Tabs.Panel value="people" className={panel}>
        <MarginPeople at={at} />
      </Tabs.Panel>
      <Tabs.Panel value="history" className={panel}>
        <MarginHistory
          at={at}
          notebook={notebook}
          mayWrite={mayWrite}
          {...(maySeePast(space) ? { onPast: (moment: number) => onGo(at.page, `past=${moment}`) } : {})}
        />
      </Tabs.Panel>
      {papering && (
        <ChangePaperDialog space={at.space} notebook={notebook} ids={papering} onClose={() => setPapering(undefined)} />
      )}
    </>
  );
}

const panel = 'flex min-h-0 grow flex-col outline-none';

function TabButton({ own, label, icon }: { own: Tab; label: string; icon: ReactNode }) {
  return (
    <Tabs.Tab
      value={own}
      data-testid={`margin-${own}`}
      title={label}
      className="group flex h-11 min-w-11 items-center justify-center gap-1.5 rounded-md px-2 text-[13.5px] text-quiet hover:bg-base-200 data-active:bg-base-200 data-active:font-semibold data-active:text-base-content"
    >
      <span className="group-data-active:hidden">{icon}</span>
      {/* Five names have no room beside each other: that of the one shown stands there. */}
      <span className="truncate not-group-data-active:sr-only">{label}</span>
    </Tabs.Tab>
  );
}
