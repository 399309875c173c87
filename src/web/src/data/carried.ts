import { placeOf } from '../sync/address';
import type { OpenDocument } from '../sync/openDocument';
import type { Workspace } from '../sync/workspace';

/** What one step did on one of the pages that it touched. */
interface Part {
  /** The page's address. */
  at: string;
  page: string;
  /** The operations. */
  done: string[];
}

const key = 'quill.carried';
const most = 20;

/** Remembers, as long as this window lives, that what was done on two pages is one step. */
export function rememberCarried(parts: Part[]): void {
  sessionStorage.setItem(key, JSON.stringify([parts, ...kept()].slice(0, most)));
}

/** What belongs to a step of a page, and was done on another page, is taken back or done again with it. */
export async function switchCarried(
  workspace: Workspace,
  document: OpenDocument,
  step: readonly string[],
  on: boolean,
): Promise<void> {
  for (const parts of kept()) {
    if (!parts.some(({ at, done }) => at === document.address && done.some((id) => step.includes(id)))) continue;
    for (const { at, page, done } of parts) {
      if (at === document.address) continue;
      const [space, kind] = placeOf(at);
      const other = await workspace.acquire(space, kind, page);
      try {
        other.performTogether((handle, now) => workspace.core.PageBridge.Switch(handle, done, on, now));
      } finally {
        workspace.release(space, kind, page);
      }
    }
  }
}

function kept(): Part[][] {
  try {
    return (JSON.parse(sessionStorage.getItem(key) ?? '[]') as Part[][] | null) ?? [];
  } catch {
    return [];
  }
}
