import { BooksIcon, DeskIcon, FlagPennantIcon, NotePencilIcon, UsersThreeIcon } from '@phosphor-icons/react';
import type { ReactNode } from 'react';
import { Link, NavLink } from 'react-router';
import { useOpenCount } from '../followups/useFollowUps';
import { useJot } from '../jot/useJot';
import { useSession } from '../server/session';
import { syncWords, useSyncState } from '../sync/syncState';
import { Avatar } from '../ui/Avatar';
import { OpenTabs } from './OpenTabs';
import { Quill } from '../ui/Quill';

/** The narrow rail: where to go; at its foot the state of saving, and the person. */
export function Rail() {
  const { person, spaces } = useSession();
  const group = spaces.find((space) => !space.personal);
  const sync = useSyncState();
  const jot = useJot();
  const open = useOpenCount();
  const words = syncWords(sync);
  return (
    <nav
      aria-label="Main"
      className="in-full-hidden flex h-full w-[84px] shrink-0 flex-col items-center border-r border-base-300 bg-base-200 pb-3 pt-3 max-sm:w-16"
    >
      <Link to="/desk" aria-label="Calm Quill, to the Desk" className="mb-3 rounded-md p-1">
        <Quill size={42} />
      </Link>
      <OpenTabs />
      <RailEntry to="/desk" label="Desk" icon={<DeskIcon size={26} weight="light" />} />
      <RailEntry to="/library" label="Library" icon={<BooksIcon size={26} weight="light" />} />
      <RailEntry to="/follow-ups" label="Follow-ups" count={open} icon={<FlagPennantIcon size={26} weight="light" />} />
      {group && (
        <RailEntry to={`/group/${group.id}`} label="Group" icon={<UsersThreeIcon size={26} weight="light" />} />
      )}
      <button
        type="button"
        data-testid="rail-jot"
        title="Jot: an empty page at once (Alt+J)"
        disabled={!jot}
        className="mt-2 flex min-h-14 w-full flex-col items-center justify-center gap-1 border-t border-base-300 pt-1 text-[13px] hover:text-primary"
        onClick={() => void jot?.()}
      >
        <NotePencilIcon size={26} weight="light" />
        Jot
      </button>
      <div className="grow" />
      <p
        role="status"
        data-testid="sync-state"
        title={words}
        className={`mb-2 w-full px-1.5 text-center text-xs leading-tight ${sync.problem === 'none' && sync.refused.length === 0 ? 'text-quiet' : 'font-semibold text-error'}`}
      >
        {words}
      </p>
      <Link
        to="/account"
        aria-label={`Account of ${person.name}`}
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
          {isActive && <span className="stitched absolute inset-y-2 left-0 w-[3px]" />}
          {icon}
          {count > 0 && (
            <span
              className="absolute right-3 top-1 grid h-[19px] min-w-[19px] place-items-center rounded-full bg-accent px-1 text-[11.5px] font-semibold text-accent-content max-sm:right-1"
              data-testid="rail-count"
            >
              {count > 99 ? '99+' : count}
            </span>
          )}
          {label}
        </>
      )}
    </NavLink>
  );
}
