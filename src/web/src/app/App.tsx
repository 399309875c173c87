import { t } from '@lingui/core/macro';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Suspense, useEffect, useRef } from 'react';
import { Navigate, Outlet, Route, Routes, useLocation } from 'react-router';
import { useJot } from '../jot/useJot';
import { useForgetting } from '../data/forgetting';
import { useKeepingNotebooks, useKeepsAnything } from '../data/useKeeping';
import { useRegion } from '../data/useRegion';
import { useKeepingShared } from '../data/useKeepingShared';
import { LockedScreen } from '../account/LockedScreen';
import type { Session } from '../server/session';
import { fetchSession, LockedDevice } from '../sync/entering';
import { NewPasswordScreen } from '../account/NewPasswordScreen';
import { ComeScreen } from '../account/ComeScreen';
import { JoinScreen } from '../account/JoinScreen';
import { SignInScreen } from '../account/SignInScreen';
import { WelcomeScreen } from '../account/WelcomeScreen';
import { useSyncState } from '../sync/syncState';
import { useNews } from '../data/useNews';
import { WorkspaceProvider } from './WorkspaceProvider';
import { useKeysKey } from './useKeysKey';
import { useTabKeys } from './useOpenTabs';
import { useRehearsal } from './useRehearsal';
import { screens } from './screens';
import { useArrival } from './useArrival';
import { focusHeading } from '../ui/focusHeading';
import { FootBar } from './FootBar';
import { Rail } from './Rail';
import { phone, useMedia } from '../ui/useMedia';
import { SaidLine } from '../ui/saying';
import { ScreenBoundary } from './ScreenBoundary';
import { SyncNotice } from './SyncNotice';

/** Signed out, the door; signed in, the rail and the screens. */
export function App() {
  const queries = useQueryClient();
  const location = useLocation();
  const session = useQuery({ queryKey: ['session'], queryFn: fetchSession, staleTime: Infinity });
  const enter = (entered: Session | null) => queries.setQueryData(['session'], entered);
  useLeaving(session.data, () => void queries.invalidateQueries({ queryKey: ['session'] }));
  if (session.isPending) return null;
  if (!session.data && session.error instanceof LockedDevice)
    return <LockedScreen session={session.error.session} onOpen={enter} />;
  if (!session.data && session.isError)
    return <p className="grid h-full place-items-center p-6">{session.error.message}</p>;
  if (location.pathname === '/open' || location.pathname === '/room') {
    const { Shown } = location.pathname === '/open' ? screens.open : screens.room;
    return (
      <Suspense fallback={<div className="h-full bg-desk" aria-busy="true" />}>
        <Shown />
      </Suspense>
    );
  }
  if (location.pathname === '/welcome') return <WelcomeScreen onEnter={enter} />;
  if (location.pathname === '/join' && location.hash.startsWith('#share='))
    return <ComeScreen session={session.data} onEnter={enter} />;
  if (location.pathname === '/join') return <JoinScreen session={session.data} onEnter={enter} />;
  if (location.pathname === '/new-password') return <NewPasswordScreen />;
  if (!session.data || location.pathname === '/sign-in') {
    return (
      <SignInScreen
        onEnter={enter}
        back={location.pathname === '/sign-in' ? '/desk' : location.pathname + location.search}
      />
    );
  }
  return (
    <WorkspaceProvider session={session.data}>
      <Routes>
        <Route element={<Frame />}>
          <Route path="/desk" element={<screens.desk.Shown />} />
          <Route path="/jot" element={<screens.jot.Shown />} />
          <Route path="/today" element={<screens.jot.Shown today />} />
          <Route path="/library/:space?/:folder?" element={<screens.library.Shown />} />
          <Route path="/page/:space/:notebook/:page?" element={<screens.page.Shown />} />
          <Route path="/pages/:space/:notebook" element={<screens.overview.Shown />} />
          <Route path="/web/:space/:notebook" element={<screens.weave.Shown />} />
          <Route path="/follow-ups" element={<screens.followUps.Shown />} />
          <Route path="/planner/:space/:folder?" element={<screens.planner.Shown />} />
          <Route path="/bring/:space/:folder?" element={<screens.bring.Shown />} />
          <Route path="/papers/:space" element={<screens.papers.Shown />} />
          <Route path="/group/:space?" element={<screens.group.Shown />} />
          <Route path="/account" element={<screens.account.Shown onChanged={enter} />} />
          <Route path="*" element={<Navigate to="/desk" replace />} />
        </Route>
      </Routes>
    </WorkspaceProvider>
  );
}

/** Once the server says that a sign-in was ended, or somebody else signs in here, nothing of the person is shown any more. */
function useLeaving(session: Session | null | undefined, ask: () => void): void {
  const { problem, onlyInMemory } = useSyncState();
  // What is in this window alone would be lost: it stays until there is room, or until the person signs in.
  const isOver = problem === 'signed-out' && onlyInMemory === 0;
  useEffect(() => {
    if (isOver) ask();
  }, [isOver]);
  const person = session?.person.id;
  const before = useRef(person);
  useEffect(() => {
    // All memory goes with a reload: lists that were asked for, pictures, what was copied.
    if (before.current && person !== before.current) location.reload();
    before.current = person;
  }, [person]);
}

function Frame() {
  useRehearsal();
  const { pathname } = useLocation();
  const main = useRef<HTMLElement>(null);
  const isPhone = useMedia(phone);
  const keysOpen = useKeysKey();
  useArrival(main);
  return (
    <div className="flex h-full">
      <Keepers />
      <a
        href="#main"
        data-testid="skip"
        className="btn btn-primary fixed start-3 top-3 z-50 h-11 -translate-y-24 focus:translate-y-0"
        onClick={(event) => {
          event.preventDefault();
          focusHeading(main.current!);
        }}
      >{t`To what stands here`}</a>
      <Rail />
      <main ref={main} id="main" className="flex min-w-0 grow flex-col">
        <SyncNotice />
        <div className="min-h-0 grow">
          <ScreenBoundary screen={pathname}>
            <Suspense fallback={<div className="h-full" aria-busy="true" />}>
              <Outlet />
            </Suspense>
          </ScreenBoundary>
        </div>
        {isPhone && !pathname.startsWith('/page/') && <FootBar />}
      </main>
      {keysOpen && (
        <Suspense fallback={null}>
          <screens.keys.Shown />
        </Suspense>
      )}
      <SaidLine />
    </div>
  );
}

/** What goes on whatever screen is shown: Alt+J makes a jot from anywhere, what is locked is forgotten, and lists follow what is written. */
function Keepers() {
  const keepsAnything = useKeepsAnything();
  const jot = useJot();
  useForgetting();
  useKeepingShared();
  useRegion();
  useTabKeys();
  useNews();
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (!event.altKey || event.ctrlKey || event.code !== 'KeyJ' || !jot) return;
      event.preventDefault();
      void jot();
    };
    addEventListener('keydown', press);
    return () => removeEventListener('keydown', press);
  }, [jot]);
  return keepsAnything && <KeptNotebooks />;
}

function KeptNotebooks() {
  useKeepingNotebooks();
  return null;
}
