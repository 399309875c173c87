import { loadedCore } from '../core/runtime';
import type { Space } from '../server/session';

/** What somebody may want to do in a space; as Core names it. */
export type Act =
  'Read' | 'Write' | 'LockAny' | 'Teach' | 'ManagePeople' | 'ChangeGroup' | 'LeaveGroup' | 'DissolveGroup';

const known = new Map<string, boolean>();

/** Whether one may do something in a space, by the table in Core that the server goes by as well. Nothing is offered that would be refused. */
export function may(space: Space | undefined, act: Act): boolean {
  if (!space) return false;
  const key = `${space.role} ${act} ${space.personal} ${space.isGuest ?? false}`;
  let answer = known.get(key);
  const core = loadedCore();
  if (answer === undefined && core) {
    answer = space.isGuest
      ? core.AccessBridge.MayAsGuest(space.role, act)
      : core.AccessBridge.May(space.role, act, space.personal);
    known.set(key, answer);
  }
  return answer ?? false;
}

/** Whether one may share a folder or notebook with people from outside its library. */
export const mayShare = (space: Space, madeIt: boolean, isFolder: boolean): boolean =>
  !space.isGuest && (loadedCore()?.AccessBridge.MayShare(space.role, madeIt, isFolder) ?? false);

/** Whether one may see pages of a library as they were. */
export const maySeePast = (space: Space | undefined): boolean =>
  space !== undefined && (loadedCore()?.AccessBridge.MaySeePast(space.role, space.isPastClosed ?? false) ?? false);

/** Whether one may change or bin what somebody made: in one's own library always, in a group as it chose. */
export const mayTouch = (space: Space | undefined, isTheirs: boolean): boolean =>
  may(space, 'Write') &&
  (loadedCore()?.AccessBridge.MayTouch(space!.touch ?? 'everything', space!.role, isTheirs) ?? false);
