import { may } from '../data/rights';
import { SignButton } from '../ui/Button';
import { t } from '@lingui/core/macro';
import {
  ArrowsDownUpIcon,
  ArrowsLeftRightIcon,
  CalendarBlankIcon,
  ClockCounterClockwiseIcon,
  ColumnsIcon,
  DotsThreeIcon,
  FilePdfIcon,
  FilePngIcon,
  FileSvgIcon,
  HandshakeIcon,
  LecternIcon,
  LinkSimpleIcon,
  LockSimpleIcon,
  RowsIcon,
  SidebarSimpleIcon,
  UserPlusIcon,
  XIcon,
} from '@phosphor-icons/react';
import type { ReactNode } from 'react';
import { usePersonal } from '../data/usePersonal';
import { downloadPng } from './downloadPng';
import { Link, useNavigate } from 'react-router';
import type { Writer } from '../data/usePeople';
import type { LibraryNode, NotebookEntry } from '../model/items';
import type { Space } from '../server/session';
import { Avatar } from '../ui/Avatar';
import { Menu } from '../ui/Menu';
import { openRail } from '../ui/rail';
import { Quill } from '../ui/Quill';
import { SyncState } from '../ui/SyncState';
import { HeaderButton } from './HeaderButton';
import type { Turning } from '../data/useNotebook';
import { finely } from '../model/fineness';
import { download } from '../data/download';
import { useWorkspace } from '../data/useWorkspace';

const turnings: { turning: Turning; words: string; icon: ReactNode }[] = [
  { turning: 'sideways', words: t`Turn pages sideways`, icon: <ArrowsLeftRightIcon size={20} weight="light" /> },
  { turning: 'down', words: t`Turn pages downwards`, icon: <ArrowsDownUpIcon size={20} weight="light" /> },
  { turning: 'seamless', words: t`Let pages run on`, icon: <RowsIcon size={20} weight="light" /> },
];

interface HeaderLineProps {
  space: Space;
  folder?: LibraryNode | undefined;
  notebook: { id: string; name: string };
  section?: NotebookEntry | undefined;
  page: NotebookEntry;
  count: number;
  /** Who else is in the notebook, and following them. */
  others: ReactNode;
  present: Writer[];
  onRename?: ((title: string) => void) | undefined;
  problem: string;
  turning: Turning;
  onCopyLink: () => void;
  onShare?: () => void;
  /** Looks at the page as it was, or as it is again. */
  onHistory?: () => void;
  /** Opens a lectern here. */
  onTeach?: () => void;
  onTurning?: (turning: Turning) => void;
  /** For a planner: takes a calendar over. */
  onCalendar?: () => void;
  margin?: { shown: boolean; toggle: () => void };
  onBeside?: () => void;
  onShut?: () => void;
  /** For the second of two pages: takes it away. */
  onClose?: () => void;
  /** Given the place in it where what is the sheet's stands. */
  onControls: (place: HTMLElement | null) => void;
}

/** The line above the sheet: where am I, who is here, what lies beside, and taking the page out. */
export function HeaderLine({
  space,
  folder,
  notebook,
  section,
  page,
  count,
  present,
  others,
  turning,
  onCopyLink,
  onShare,
  onHistory,
  onTeach,
  onRename,
  onTurning,
  onCalendar,
  problem,
  margin,
  onBeside,
  onShut,
  onClose,
  onControls,
}: HeaderLineProps) {
  const navigate = useNavigate();
  const workspace = useWorkspace();
  const hasAside = usePersonal()?.asides.has(page.id);
  const take = (words: string, what: string) =>
    void download(workspace, { path: finely(`/api/spaces/${space.id}/${what}`), words });
  return (
    <header
      className={`in-full-hidden flex h-12 shrink-0 items-center gap-2 border-b border-base-300 pe-2 max-sm:h-auto max-sm:flex-wrap max-sm:gap-y-0 ${onClose ? 'ps-4' : 'ps-1'}`}
    >
      {!onClose && (
        <>
          <SignButton
            label={t`Where to go: Desk, Library and the rest`}
            title={t`Where to go`}
            data-testid="open-rail"
            className="-me-1"
            onClick={() => openRail(true)}
          >
            <Quill size={28} />
          </SignButton>
          <Link
            to={space.isGuest ? '/library/list/given' : `/library/${space.id}${folder ? `/${folder.id}` : ''}`}
            className="min-w-0 shrink truncate py-2 text-quiet hover:underline @max-4xl:hidden"
            data-testid="back-to-library"
          >
            {folder?.name ?? space.name}
          </Link>
          <span className="@max-4xl:hidden">
            <Slash />
          </span>
        </>
      )}
      <h1
        className="min-w-0 shrink truncate text-[16px] max-sm:flex-1 @max-2xl:min-w-16"
        data-testid="notebook-name"
        title={notebook.name}
      >
        {notebook.name}
      </h1>
      {section && (
        <>
          <span className="text-quiet @max-5xl:hidden" aria-hidden="true">
            /
          </span>
          <span className="min-w-0 shrink truncate text-quiet @max-5xl:hidden">{section.title}</span>
        </>
      )}
      <span className="max-sm:hidden">
        <Slash />
      </span>
      {/* On a phone it has a line of its own. */}
      <div className="contents max-sm:order-last max-sm:-mt-1 max-sm:flex max-sm:min-w-0 max-sm:basis-full max-sm:items-center max-sm:gap-2 max-sm:pb-2">
        <input
          key={`${page.id}${page.title}`}
          aria-label={t`Title of the page`}
          data-testid="page-title"
          defaultValue={page.title}
          placeholder={t`Untitled page`}
          readOnly={!onRename}
          className="h-9 min-w-16 max-w-80 shrink rounded-md field-sizing-content border border-transparent bg-transparent px-2 placeholder:text-quiet hover:border-base-300"
          onBlur={(event) => event.target.value.trim() !== page.title && onRename?.(event.target.value.trim())}
          onKeyDown={(event) => {
            // From here on keys are the page's again.
            if (event.key === 'Enter') event.currentTarget.blur();
            else if (event.key === 'Escape') {
              event.currentTarget.value = page.title;
              event.currentTarget.blur();
            }
          }}
        />
        <span
          className="shrink-0 whitespace-nowrap rounded-sm bg-base-200 px-2 py-0.5 text-[13px] text-quiet"
          data-testid="page-number"
        >{t`page ${page.number} of ${count}`}</span>
        {!onClose && (
          <SyncState className="max-w-60 shrink-0 truncate text-[13px] max-sm:shrink max-sm:grow max-sm:text-end" />
        )}
      </div>
      <span role="alert" className="truncate text-error empty:hidden">
        {problem}
      </span>
      <div className="grow max-sm:hidden" />
      <div className="flex shrink-0 -space-x-1.5" role="group" aria-label={t`Here now`} data-testid="present">
        {present.map((person) => (
          <Avatar key={person.id} name={person.name} colour={person.colour} />
        ))}
      </div>
      {others}
      {!may(space, 'Write') && <span className="shrink-0 text-[13px] text-quiet">{t`You read here`}</span>}
      <div ref={onControls} className="contents" />
      {onShut && (
        <HeaderButton
          label={t`Lock it now`}
          testId="shut"
          icon={<LockSimpleIcon size={22} weight="light" />}
          onPress={onShut}
        />
      )}
      {onBeside && (
        <HeaderButton
          without="phone"
          label={t`Beside: a second page next to this one`}
          testId="beside"
          icon={<ColumnsIcon size={22} weight="light" />}
          onPress={onBeside}
        />
      )}
      {margin && (
        <HeaderButton
          label={t`Margin: contents, marks and links`}
          testId="contents"
          pressed={margin.shown}
          icon={<SidebarSimpleIcon size={22} weight="light" mirrored />}
          onPress={margin.toggle}
        />
      )}
      <Menu
        label={t`More: link, export, how pages turn`}
        testId="export"
        icon={<DotsThreeIcon size={24} />}
        entries={[
          // Beside another page the line may be too narrow for its button.
          ...(margin && !margin.shown
            ? [
                {
                  label: t`Contents, marks and links`,
                  testId: 'menu-contents',
                  icon: <SidebarSimpleIcon size={20} weight="light" mirrored />,
                  onChoose: margin.toggle,
                },
              ]
            : []),
          ...(may(space, 'ManagePeople')
            ? [
                {
                  label: t`Invite into this group`,
                  testId: 'invite-here',
                  icon: <UserPlusIcon size={20} weight="light" />,
                  onChoose: () => void navigate(`/group/${space.id}?invite`),
                },
              ]
            : []),
          ...(onShare
            ? [
                {
                  label: t`Share`,
                  testId: 'share-here',
                  icon: <HandshakeIcon size={20} weight="light" />,
                  onChoose: onShare,
                },
              ]
            : []),
          ...(onTeach
            ? [
                {
                  label: t`Teach from here`,
                  testId: 'open-lectern',
                  icon: <LecternIcon size={20} weight="light" />,
                  onChoose: onTeach,
                },
              ]
            : []),
          ...(onHistory
            ? [
                {
                  label: t`History of this page`,
                  testId: 'open-history',
                  icon: <ClockCounterClockwiseIcon size={20} weight="light" />,
                  onChoose: onHistory,
                },
              ]
            : []),
          {
            label: t`Copy a link to this page`,
            testId: 'copy-page-link',
            icon: <LinkSimpleIcon size={20} weight="light" />,
            onChoose: onCopyLink,
          },
          {
            label: t`This page as PDF`,
            testId: 'export-page',
            icon: <FilePdfIcon size={20} weight="light" />,
            onChoose: () => take(t`The page as PDF`, `pages/${page.id}/export.pdf`),
          },
          {
            label: t`This page as SVG`,
            testId: 'export-svg',
            icon: <FileSvgIcon size={20} weight="light" />,
            onChoose: () => take(t`The page as SVG`, `pages/${page.id}/export.svg`),
          },
          {
            label: t`This page as PNG`,
            testId: 'export-png',
            icon: <FilePngIcon size={20} weight="light" />,
            onChoose: () => void downloadPng(workspace, space.id, page.id, page.title),
          },
          ...(hasAside
            ? [
                {
                  label: t`This page with your aside, as PDF`,
                  testId: 'export-over',
                  icon: <FilePdfIcon size={20} weight="light" />,
                  onChoose: () => take(t`The page as PDF`, `pages/${page.id}/export.pdf?aside=over`),
                },
                {
                  label: t`Your aside alone, as PDF`,
                  testId: 'export-aside',
                  icon: <FilePdfIcon size={20} weight="light" />,
                  onChoose: () => take(t`Your aside as PDF`, `pages/${page.id}/export.pdf?aside=alone`),
                },
              ]
            : []),
          {
            label: t`The notebook as PDF`,
            testId: 'export-notebook',
            icon: <FilePdfIcon size={20} weight="light" />,
            onChoose: () => take(t`The notebook as PDF`, `notebooks/${notebook.id}/export.pdf`),
          },
          ...(onCalendar
            ? [
                {
                  label: t`Calendar of this planner`,
                  testId: 'take-calendar',
                  icon: <CalendarBlankIcon size={20} weight="light" />,
                  onChoose: onCalendar,
                },
              ]
            : []),
          ...(onTurning
            ? turnings
                .filter((one) => one.turning !== turning)
                .map((one) => ({
                  label: one.words,
                  testId: `turn-${one.turning}`,
                  icon: one.icon,
                  onChoose: () => onTurning(one.turning),
                }))
            : []),
        ]}
      />
      {onClose && (
        <HeaderButton
          label={t`Close the page beside`}
          testId="close-beside"
          icon={<XIcon size={20} weight="light" />}
          onPress={onClose}
        />
      )}
    </header>
  );
}

function Slash() {
  return (
    <span className="text-quiet" aria-hidden="true">
      /
    </span>
  );
}
