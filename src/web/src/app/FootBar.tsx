import { t } from '@lingui/core/macro';
import { BooksIcon, DeskIcon, DotsThreeIcon, FlagPennantIcon, NotePencilIcon } from '@phosphor-icons/react';
import type { ReactNode } from 'react';
import { NavLink } from 'react-router';
import { useOpenCount } from '../followups/useFollowUps';
import { useJot } from '../jot/useJot';
import { openRail } from '../ui/rail';
import { SyncState } from '../ui/SyncState';
import { RailCount } from './RailCount';

const place = 'relative flex h-14 min-w-0 flex-1 flex-col items-center justify-center gap-0.5 text-[12px]';

/** On a phone the rail laid down: the same signs, the stitched line above the chosen one; what has no place in it is behind “More”. */
export function FootBar() {
  const jot = useJot();
  const open = useOpenCount();
  return (
    <div className="in-full-hidden shrink-0 border-t border-base-300 bg-base-200 sm:hidden" data-testid="foot-bar">
      <SyncState className="truncate px-3 pt-1 text-center text-[11px] leading-tight" />
      <nav aria-label={t`Main`} className="flex">
        <BarLink to="/desk" label={t`Desk`} icon={<DeskIcon size={24} weight="light" />} />
        <BarLink to="/library" label={t`Library`} icon={<BooksIcon size={24} weight="light" />} />
        <BarLink
          to="/follow-ups"
          label={t`Follow-ups`}
          icon={<FlagPennantIcon size={24} weight="light" />}
          count={open}
        />
        <button type="button" data-testid="bar-jot" disabled={!jot} className={place} onClick={() => void jot?.()}>
          <NotePencilIcon size={24} weight="light" />
          {t`Jot`}
        </button>
        <button type="button" data-testid="bar-more" className={place} onClick={() => openRail(true)}>
          <DotsThreeIcon size={24} />
          {t`More`}
        </button>
      </nav>
    </div>
  );
}

function BarLink({ to, label, icon, count = 0 }: { to: string; label: string; icon: ReactNode; count?: number }) {
  return (
    <NavLink to={to} className={({ isActive }) => `${place} ${isActive ? 'font-semibold text-primary' : ''}`}>
      {({ isActive }) => (
        <>
          {isActive && <span className="stitched-across absolute inset-x-4 top-0 h-[3px]" />}
          {icon}
          <RailCount count={count} />
          {label}
        </>
      )}
    </NavLink>
  );
}
