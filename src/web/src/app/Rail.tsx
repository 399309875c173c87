import { t } from '@lingui/core/macro';
import { BooksIcon, DeskIcon, FlagPennantIcon, NotePencilIcon, UsersThreeIcon } from '@phosphor-icons/react';
import { type ReactNode, useEffect, useRef } from 'react';
import { Link, NavLink, useLocation } from 'react-router';
import { useOpenCount } from '../followups/useFollowUps';
import { useDoor } from '../group/groups';
import { useJot } from '../jot/useJot';
import { useSession } from '../server/session';
import { Avatar } from '../ui/Avatar';
import { Quill } from '../ui/Quill';
import { openRail, useRailOpen } from '../ui/rail';
import { phone, useMedia } from '../ui/useMedia';
import { Drawer } from '../ui/Dialog';
import { SyncState } from '../ui/SyncState';
import { OpenTabs } from './OpenTabs';
import { RailCount } from './RailCount';

/** So far a finger goes from the edge before the rail comes, pixels. */
const swipe = 24;

/** The narrow rail: where to go; at its foot the state of saving, and the person. On a page it is folded to an edge, and comes by a press or a swipe; a phone has a bar at the foot instead. */
export function Rail() {
  const { pathname } = useLocation();
  const onPage = pathname.startsWith('/page/');
  const open = useRailOpen();
  useEffect(() => openRail(false), [pathname]);
  const isPhone = useMedia(phone);
  return (
    <>
      {onPage ? <RailEdge /> : !isPhone && <RailContent className="h-full" withState />}
      {open && <RailOver />}
    </>
  );
}

/** The edge of the folded rail. */
function RailEdge() {
  const from = useRef<number>(undefined);
  return (
    <button
      type="button"
      tabIndex={-1}
      aria-hidden="true"
      title={t`Where to go`}
      data-testid="rail-edge"
      className="in-full-hidden relative h-full w-2 shrink-0 touch-none border-e border-base-300 bg-base-200 after:absolute after:inset-y-0 after:start-0 after:w-3 hover:bg-base-300 max-sm:w-0 max-sm:border-0"
      onClick={() => openRail(true)}
      onPointerDown={(event) => {
        from.current = event.clientX;
        event.currentTarget.setPointerCapture(event.pointerId);
      }}
      onPointerMove={(event) => {
        if (from.current !== undefined && event.clientX - from.current > swipe) openRail(true);
      }}
      onPointerUp={() => (from.current = undefined)}
      onPointerCancel={() => (from.current = undefined)}
    />
  );
}

/** The rail over a page, until one goes somewhere, presses beside it or Escape. */
function RailOver() {
  return (
    <Drawer label={t`Where to go`} testId="rail-over" onClose={() => openRail(false)}>
      <RailContent className="h-full shadow-lg" />
    </Drawer>
  );
}

function RailContent({ className, withState }: { className: string; withState?: boolean }) {
  const { person } = useSession();
  const { asking, invited } = useDoor();
  const jot = useJot();
  const open = useOpenCount();
  return (
    <nav
      aria-label={t`Main`}
      className={`in-full-hidden flex w-[84px] shrink-0 flex-col items-center border-e border-base-300 bg-base-200 pb-3 pt-3 ${className}`}
    >
      <Link to="/desk" aria-label={t`Calm Quill, to the Desk`} className="mb-3 rounded-md p-1">
        <Quill size={42} />
      </Link>
      <OpenTabs />
      <RailEntry to="/desk" label={t`Desk`} icon={<DeskIcon size={26} weight="light" />} />
      <RailEntry to="/library" label={t`Library`} icon={<BooksIcon size={26} weight="light" />} />
      <RailEntry
        to="/follow-ups"
        label={t`Follow-ups`}
        count={open}
        icon={<FlagPennantIcon size={26} weight="light" />}
      />
      <RailEntry
        to="/group"
        label={t`Group`}
        count={asking.length + invited.length}
        icon={<UsersThreeIcon size={26} weight="light" />}
      />
      <button
        type="button"
        data-testid="rail-jot"
        title={t`Jot: an empty page at once (Alt+J)`}
        disabled={!jot}
        className="mt-2 flex min-h-14 w-full flex-col items-center justify-center gap-1 border-t border-base-300 pt-1 text-[13px] hover:text-primary"
        onClick={() => void jot?.()}
      >
        <NotePencilIcon size={26} weight="light" />
        {t`Jot`}
      </button>
      <div className="grow" />
      {withState && <SyncState className="mb-2 w-full px-1.5 text-center text-xs leading-tight" />}
      <Link
        to="/account"
        aria-label={t`Account of ${person.name}`}
        data-testid="account-link"
        className="rounded-full p-1"
      >
        <Avatar name={person.name} colour={person.colour} size={36} />
      </Link>
    </nav>
  );
}

function RailEntry({ to, label, icon, count = 0 }: { to: string; label: string; icon: ReactNode; count?: number }) {
  return (
    <NavLink
      to={to}
      className={({ isActive }) =>
        `relative flex min-h-14 w-full flex-col items-center justify-center gap-1 text-[13px] ${isActive ? 'font-semibold text-primary' : 'hover:text-primary'}`
      }
    >
      {({ isActive }) => (
        <>
          {isActive && <span className="stitched absolute inset-y-2 start-0 w-[3px]" />}
          {icon}
          <RailCount count={count} />
          {label}
        </>
      )}
    </NavLink>
  );
}
