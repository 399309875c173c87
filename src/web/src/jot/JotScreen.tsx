import { t } from '@lingui/core/macro';
import { useEffect, useRef } from 'react';
import { useNavigate } from 'react-router';
import { usePersonal } from '../data/usePersonal';
import { useSession } from '../server/session';
import { useWorkspace } from '../data/useWorkspace';
import { makeJot, makeToday } from './useJot';

/** The addresses that a phone can keep on its home screen: /jot and /today. They make the page and go to it. */
export function JotScreen({ today }: { today?: boolean }) {
  const personal = usePersonal();
  const workspace = useWorkspace();
  const { spaces } = useSession();
  const navigate = useNavigate();
  const begun = useRef(false);
  useEffect(() => {
    if (!personal || begun.current) return;
    begun.current = true;
    void (
      today
        ? makeToday(personal, workspace, new Set(spaces.map((space) => space.id)))
        : Promise.resolve().then(() => makeJot(personal))
    ).then((path) => navigate(path, { replace: true }));
  }, [personal, workspace, spaces, navigate, today]);
  return <p className="grid h-full place-items-center text-quiet">{t`Laying out a page`}</p>;
}
