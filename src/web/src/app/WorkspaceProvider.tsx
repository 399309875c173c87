import { useQueryClient } from '@tanstack/react-query';
import { type ReactNode, useEffect, useMemo, useState } from 'react';
import { WorkspaceContext } from '../data/useWorkspace';
import { trimPictures } from '../pictures/trimPictures';
import { type Session, SessionContext } from '../server/session';
import { reportFault } from '../sync/faults';
import { Workspace } from '../sync/workspace';
import { StoreScreen, type StoreStanding } from './StoreScreen';

/** What has time waits for so long, ms, until the first screen is there. */
const idleAfter = 10_000;

/** Starts the workspace of the person signed in, and shows its children when it is ready. */
export function WorkspaceProvider({ session, children }: { session: Session; children: ReactNode }) {
  const [workspace, setWorkspace] = useState<Workspace>();
  const [standing, setStanding] = useState<StoreStanding>('opening');
  const [problem, setProblem] = useState('');
  const person = session.person.id;
  useEffect(() => {
    let ended = false;
    const tell = (now: StoreStanding) => !ended && setStanding(now);
    const starting = Workspace.start(session, {
      blocked: () => tell('blocked'),
      opened: () => tell('open'),
      taken: () => tell('taken'),
    });
    const trimming = setTimeout(() => void trimPictures(), idleAfter);
    starting.then(
      (started) => (ended ? started.stop() : setWorkspace(started)),
      (error: unknown) => {
        reportFault('The application could not start.', error);
        setProblem(error instanceof Error ? error.message : String(error));
        tell('failed');
      },
    );
    return () => {
      ended = true;
      clearTimeout(trimming);
      void starting.then((started) => started.stop()).catch(() => {});
    };
    // A changed name or space list does not start a new workspace; another person does.
  }, [person]);
  if (standing === 'taken' || standing === 'failed' || standing === 'blocked')
    return <StoreScreen standing={standing} problem={problem} />;
  if (!workspace) return <StoreScreen standing="opening" problem="" />;
  return (
    <Following workspace={workspace} session={session}>
      {children}
    </Following>
  );
}

/** Goes along as the person comes into spaces and leaves them: a space is shown once its library is open, and no longer than the server says. */
function Following({ workspace, session, children }: { workspace: Workspace; session: Session; children: ReactNode }) {
  const queries = useQueryClient();
  const [followed, setFollowed] = useState(() => new Set(workspace.libraries.map((library) => library.space)));
  const ids = session.spaces.map((space) => space.id).join();
  useEffect(() => workspace.knowSpaces(session.spaces), [workspace, session.spaces]);
  useEffect(() => {
    let ended = false;
    if (ids === workspace.libraries.map((library) => library.space).join()) return undefined;
    workspace.follow(ids.split(',')).then(
      () => {
        if (ended) return;
        setFollowed(new Set(ids.split(',')));
        void queries.invalidateQueries({ predicate: ({ queryKey }) => queryKey[0] !== 'session' });
      },
      (problem: unknown) => reportFault('A space could not be opened or left.', problem),
    );
    return () => {
      ended = true;
    };
  }, [workspace, ids]);
  const shown = useMemo(
    () => ({ ...session, spaces: session.spaces.filter((space) => followed.has(space.id)) }),
    [session, followed],
  );
  return (
    <SessionContext value={shown}>
      <WorkspaceContext value={workspace}>{children}</WorkspaceContext>
    </SessionContext>
  );
}
