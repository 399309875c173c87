import { type ComponentType, lazy, useState } from 'react';

/** A screen whose code comes when it is first shown, or before, once there is time. */
interface Screen<P> {
  Shown: ComponentType<P>;
  load: () => Promise<unknown>;
}

/** Where the code is there already, the screen is shown at once: waiting for it, however shortly, would show nothing for a while. */
function screen<P extends object>(ask: () => Promise<ComponentType<P>>): Screen<P> {
  let there: ComponentType<P> | undefined;
  let asked: Promise<ComponentType<P>> | undefined;
  const load = () =>
    (asked ??= ask().then(
      (Loaded) => (there = Loaded),
      (problem: unknown) => {
        // It is asked for again by whoever wants it next.
        asked = undefined;
        throw problem;
      },
    ));
  const Awaited = lazy(async () => ({ default: await load() }));
  function Shown(props: P) {
    const [Content] = useState(() => there ?? (Awaited as unknown as ComponentType<P>));
    return <Content {...props} />;
  }
  return { Shown, load };
}

/** The screens, those shown most first: in this order their code is loaded once there is time. */
export const screens = {
  page: screen(async () => (await import('../page/PageScreen')).PageScreen),
  library: screen(async () => (await import('../library/LibraryScreen')).LibraryScreen),
  overview: screen(async () => (await import('../overview/OverviewScreen')).OverviewScreen),
  desk: screen(async () => (await import('../desk/DeskScreen')).DeskScreen),
  jot: screen(async () => (await import('../jot/JotScreen')).JotScreen),
  followUps: screen(async () => (await import('../followups/FollowUpsScreen')).FollowUpsScreen),
  weave: screen(async () => (await import('../weave/WebScreen')).WebScreen),
  bring: screen(async () => (await import('../bring/BringScreen')).BringScreen),
  planner: screen(async () => (await import('../planner/PlannerScreen')).PlannerScreen),
  room: screen(async () => (await import('../room/RoomScreen')).RoomScreen),
  open: screen(async () => (await import('../account/OpenScreen')).OpenScreen),
  papers: screen(async () => (await import('../papers/PapersScreen')).PapersScreen),
  group: screen(async () => (await import('../group/GroupScreen')).GroupScreen),
  keys: screen(async () => (await import('./KeysSheet')).KeysSheet),
  account: screen(async () => (await import('../account/AccountScreen')).AccountScreen),
};

/** Loads the code of a screen each; what cannot be had now is asked for when it is shown. */
export const loaders = (): (() => void)[] =>
  Object.values(screens).map(
    ({ load }) =>
      () =>
        void load().catch(() => {}),
  );
