import { addressOf } from '../sync/address';
import type { Workspace } from '../sync/workspace';

/** So many pages' times are kept of a space. */
const most = 1_000;

const timesKept = (space: string) => `written ${space}`;

/** Keeps when pages were written on, to go by without a connection. */
export async function keepTimes(
  workspace: Workspace,
  space: string,
  told: readonly { id: string; writtenAt: number | null }[],
): Promise<void> {
  const pages = told.filter((page) => page.writtenAt !== null);
  if (pages.length === 0) return;
  const kept = (await workspace.store.answer(timesKept(space))) as Record<string, number> | undefined;
  const times = { ...kept, ...Object.fromEntries(pages.map(({ id, writtenAt }) => [id, writtenAt!])) };
  const latest = Object.entries(times).sort(([, a], [, b]) => b - a);
  await workspace.store.keepAnswer(timesKept(space), Object.fromEntries(latest.slice(0, most)));
}

/** When pages of a space were written on last, as far as this device knows: from the server's answers, and from what was written here. */
export async function timesHere(workspace: Workspace, space: string): Promise<Map<string, number>> {
  const kept = (await workspace.store.answer(timesKept(space))) as Record<string, number> | undefined;
  const times = new Map(Object.entries(kept ?? {}));
  const here = await workspace.store.writtenHere((bytes) => workspace.core.DocumentBridge.WrittenAt(bytes));
  const own = addressOf(space, 'page', '');
  for (const [address, at] of here) {
    if (!address.startsWith(own)) continue;
    const id = address.slice(own.length);
    times.set(id, Math.max(times.get(id) ?? 0, at));
  }
  return times;
}
