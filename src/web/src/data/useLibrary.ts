import { useSyncExternalStore } from 'react';
import type { OpenDocument } from '../sync/openDocument';
import { type Workspace } from '../sync/workspace';
import { useWorkspace } from './useWorkspace';
import { Library } from './Library';

/** The library of a space and what can be done to it; everything but copying works without a connection. */
export function useLibrary(space: string): Library | undefined {
  const workspace = useWorkspace();
  const own = useLibraries().get(space);
  useSyncExternalStore(workspace.shared.subscribe, () => workspace.shared.libraries);
  return own ?? sharedLibrary(workspace, space);
}

/** The part of a library that was shared: it is looked at, and not changed. */
function sharedLibrary(workspace: Workspace, space: string): Library | undefined {
  const document = workspace.shared.libraries.find((one) => one.space === space);
  if (!document) return undefined;
  const known = given.get(document) ?? new Library(document, workspace);
  given.set(document, known);
  return known;
}

const given = new WeakMap<OpenDocument, Library>();

/** The libraries of all spaces of the person, in the order of the spaces. They are open as long as the person is in their spaces. */
export function useLibraries(): Map<string, Library> {
  const workspace = useWorkspace();
  useSyncExternalStore(workspace.subscribeLibraries, () => versionsOf(workspace.libraries));
  return librariesOf(workspace);
}

const versionsOf = (libraries: readonly OpenDocument[]) =>
  libraries.map((document) => `${document.space} ${document.getVersion()}`).join();

/** Made anew whenever one of them changes; everybody shares the last ones made. */
const made = new WeakMap<Workspace, { versions: string; libraries: Map<string, Library> }>();

function librariesOf(workspace: Workspace): Map<string, Library> {
  const versions = versionsOf(workspace.libraries);
  const before = made.get(workspace);
  if (before?.versions === versions) return before.libraries;
  const libraries = new Map(
    workspace.libraries.map((document) => {
      const known = before?.libraries.get(document.space);
      return [
        document.space,
        known?.version === document.getVersion() ? known : new Library(document, workspace),
      ] as const;
    }),
  );
  made.set(workspace, { versions, libraries });
  return libraries;
}
