import { t } from '@lingui/core/macro';
import { LecternIcon } from '@phosphor-icons/react';
import { Link } from 'react-router';
import { useLecterns } from '../data/useLecterns';
import { useLibraries } from '../data/useLibrary';
import { usePeople } from '../data/usePeople';
import { useWorkspace } from '../data/useWorkspace';
import type { Lectern } from '../sync/lecterns';

/** Lessons that go on at this moment: one press, and one is in place. */
export function Taught() {
  const shown = useLecterns();
  if (shown.length === 0) return null;
  return (
    <ul className="mt-5 border-b border-base-300 pb-3" aria-label={t`Lessons now`}>
      {shown.map((one) => (
        <Lesson key={one.id} lectern={one} />
      ))}
    </ul>
  );
}

function Lesson({ lectern }: { lectern: Lectern }) {
  const { lecterns } = useWorkspace();
  const libraries = useLibraries();
  const people = usePeople(lectern.space);
  const leader = people.find((one) => one.id === lectern.leader);
  const name = libraries.get(lectern.space)?.find(lectern.notebook)?.name;
  if (!leader || !name) return null;
  return (
    <li className="flex items-center gap-3" data-testid="lesson-now">
      <LecternIcon size={26} weight="light" className="shrink-0 text-accent" aria-hidden="true" />
      <span className="min-w-0 grow truncate">{t`${leader.name} teaches from “${name}” now.`}</span>
      <Link
        to={`/page/${lectern.space}/${lectern.notebook}`}
        className="quiet-button"
        data-testid="go-to-lesson"
        onClick={() => lecterns.follow(lectern)}
      >
        {t`Go there and follow`}
      </Link>
    </li>
  );
}
