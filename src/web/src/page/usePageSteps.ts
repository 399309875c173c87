import { t } from '@lingui/core/macro';
import { switchCarried } from '../data/carried';
import { useWorkspace } from '../data/useWorkspace';
import { type LongWorker, stillAtWork } from '../sheet/blotter/longWork';
import type { OpenDocument } from '../sync/openDocument';
import { say } from '../ui/saying';

/** Undoing and redoing one's own steps on a page, with what belongs to them on another; and whether there is a step to undo or redo. */
export function usePageSteps(document: OpenDocument, worker: LongWorker) {
  const workspace = useWorkspace();
  const { PageBridge } = workspace.core;
  const steps = document.isHeld ? 0 : PageBridge.Steps(document.handle);
  const go = (again: boolean) => {
    if (worker.busy()) return say(stillAtWork);
    const step = PageBridge.Step(document.handle, again);
    void (
      again
        ? worker.runBegun(t`Redoing`, PageBridge.BeginRedo(document.handle), t`Taking it away again`)
        : worker.runBegun(t`Undoing`, PageBridge.BeginUndo(document.handle), t`Putting it back`)
    ).then((isDone) => (isDone ? switchCarried(workspace, document, step, again) : undefined));
  };
  return { undo: () => go(false), redo: () => go(true), mayUndo: (steps & 1) !== 0, mayRedo: (steps & 2) !== 0 };
}
