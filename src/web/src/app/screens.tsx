import { type ComponentType, lazy, useState } from 'react';

/** A screen whose code comes when it is first shown, or before, once there is time. */
export interface Screen<P> {
  Shown: ComponentType<P>;
  load: () => Promise<unknown>;
}

/** Where the code is there already, the screen is shown at once: waiting for it, however shortly, would show nothing for a while. */
export function screen<P extends object>(ask: () => Promise<ComponentType<P>>): Screen<P> {
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

const screens = {
  desk: screen(async () => (await import('../desk/DeskScreen')).DeskScreen),
  jot: screen(async () => (await import('../jot/JotScreen')).JotScreen),
  library: screen(async () => (await import('../library/LibraryScreen')).LibraryScreen),
  page: screen(async () => (await import('../page/PageScreen')).PageScreen),
  overview: screen(async () => (await import('../overview/OverviewScreen')).OverviewScreen),
  weave: screen(async () => (await import('../weave/WebScreen')).WebScreen),
  followUps: screen(async () => (await import('../followups/FollowUpsScreen')).FollowUpsScreen),
  planner: screen(async () => (await import('../planner/PlannerScreen')).PlannerScreen),
  papers: screen(async () => (await import('../papers/PapersScreen')).PapersScreen),
  group: screen(async () => (await import('../group/GroupScreen')).GroupScreen),
  keys: screen(async () => (await import('./KeysSheet')).KeysSheet),
  account: screen(async () => (await import('../account/AccountScreen')).AccountScreen),
};

export const DeskScreen = screens.desk.Shown;
export const JotScreen = screens.jot.Shown;
export const LibraryScreen = screens.library.Shown;
export const PageScreen = screens.page.Shown;
export const OverviewScreen = screens.overview.Shown;
export const WebScreen = screens.weave.Shown;
export const FollowUpsScreen = screens.followUps.Shown;
export const PlannerScreen = screens.planner.Shown;
export const PapersScreen = screens.papers.Shown;
export const GroupScreen = screens.group.Shown;
export const KeysSheet = screens.keys.Shown;
export const AccountScreen = screens.account.Shown;

/** Loads the code of every screen, the ones shown most first; what cannot be had now is asked for when it is shown. */
export const loaders = (): (() => void)[] =>
  [screens.page, screens.library, screens.desk, ...Object.values(screens)].map(
    ({ load }) =>
      () =>
        void load().catch(() => {}),
  );
