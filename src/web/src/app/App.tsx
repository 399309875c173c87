import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Navigate, Outlet, Route, Routes, useLocation } from 'react-router';
import { GroupScreen } from '../group/GroupScreen';
import { LibraryScreen } from '../library/LibraryScreen';
import { PageScreen } from '../page/PageScreen';
import { AccountScreen } from '../session/AccountScreen';
import { type Session, SessionContext, fetchSession } from '../session/session';
import { SignInScreen } from '../session/SignInScreen';
import { WorkspaceProvider } from '../sync/workspace';
import { Rail } from './Rail';
import { SyncNotice } from './SyncNotice';

/** Signed out, the door; signed in, the rail and the screens. */
export function App() {
  const queries = useQueryClient();
  const location = useLocation();
  const session = useQuery({ queryKey: ['session'], queryFn: fetchSession, staleTime: Infinity });
  const enter = (entered: Session | null) => queries.setQueryData(['session'], entered);
  if (session.isPending) return null;
  if (session.isError) return <p className="grid h-full place-items-center p-6">{session.error.message}</p>;
  if (!session.data || location.pathname === '/sign-in') {
    return <SignInScreen onEnter={enter} back={location.pathname === '/sign-in' ? '/library' : location.pathname} />;
  }
  return (
    <SessionContext value={session.data}>
      <WorkspaceProvider session={session.data}>
        <Routes>
          <Route element={<Frame />}>
            <Route path="/library/:space?/:folder?" element={<LibraryScreen />} />
            <Route path="/page/:space/:notebook/:page?" element={<PageScreen />} />
            <Route path="/group/:space" element={<GroupScreen />} />
            <Route path="/account" element={<AccountScreen onChanged={enter} />} />
            <Route path="*" element={<Navigate to="/library" replace />} />
          </Route>
        </Routes>
      </WorkspaceProvider>
    </SessionContext>
  );
}

function Frame() {
  return (
    <div className="flex h-full">
      <Rail />
      <main className="flex min-w-0 grow flex-col">
        <SyncNotice />
        <div className="min-h-0 grow">
          <Outlet />
        </div>
      </main>
    </div>
  );
}
