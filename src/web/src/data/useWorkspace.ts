import { t } from '@lingui/core/macro';
import { createContext, useContext, useEffect, useState, useSyncExternalStore } from 'react';
import type { DocumentKind } from '../core/runtime';
import { addressOf } from '../sync/address';
import type { OpenDocument } from '../sync/openDocument';
import type { Workspace } from '../sync/workspace';

export const WorkspaceContext = createContext<Workspace | null>(null);

export function useWorkspace(): Workspace {
  const workspace = useContext(WorkspaceContext);
  if (!workspace) throw new Error(t`The workspace has not been started.`);
  return workspace;
}

/** A document while the component is shown; undefined until it is open, and where no id is given. Renders again with every change. */
export function useDocument(space: string, kind: DocumentKind, id: string): OpenDocument | undefined {
  const workspace = useWorkspace();
  const [document, setDocument] = useState<OpenDocument>();
  useEffect(() => {
    if (!id) return;
    let ended = false;
    void workspace.acquire(space, kind, id).then((opened) => !ended && setDocument(opened));
    return () => {
      ended = true;
      workspace.release(space, kind, id);
      // It may be closed now: who comes back to it before another was open waits for it anew.
      setDocument(undefined);
    };
  }, [workspace, space, kind, id]);
  const shown = !id
    ? undefined
    : document?.address === addressOf(space, kind, id)
      ? document
      : workspace.ready(space, kind, id);
  useSyncExternalStore(shown?.subscribe ?? noSubscription, shown?.getVersion ?? noVersion);
  return shown;
}

const noSubscription = () => () => {};
const noVersion = () => 0;
