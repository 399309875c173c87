import { createContext, type ReactNode, useContext, useEffect, useState, useSyncExternalStore } from 'react';
import { type Core, type DocumentKind, loadCore } from '../core/runtime';
import { getJson, Unreachable } from '../session/api';
import type { Session } from '../session/session';
import { addressOf } from './address';
import { DeviceStore } from './deviceStore';
import { Live } from './live';
import { OpenDocument } from './openDocument';
import { newReplica, Outbox } from './outbox';
import { trimPictures } from '../pictures/trimPictures';

/** What has time waits for so long, ms, until the first screen is there. */
const idleAfter = 10_000;

/** Everything that is open for the person signed in: Core, the device's store, the outbox, the live connection, and documents shared by who shows them. */
export class Workspace {
  /** The libraries of all spaces; they stay open as long as somebody is signed in, since every screen asks them something. */
  readonly libraries: OpenDocument[] = [];
  private readonly fresh = new Set<string>();
  private readonly open = new Map<string, { document: Promise<OpenDocument>; users: number; ready?: OpenDocument }>();

  private constructor(
    readonly core: Core,
    readonly store: DeviceStore,
    readonly outbox: Outbox,
    readonly live: Live,
  ) {
    outbox.onStored = (document, sequences) => this.open.get(document)?.ready?.acknowledge(sequences);
    outbox.onRestamped = (documents) => {
      for (const id of documents) void this.open.get(id)?.ready?.reload();
    };
  }

  static async start(session: Session): Promise<Workspace> {
    const [core, store] = await Promise.all([loadCore(), DeviceStore.open(session.person.id)]);
    core.DocumentBridge.Start(newReplica(), session.person.id);
    const outbox = new Outbox(core, store, session.person.id);
    outbox.flush();
    const workspace = new Workspace(core, store, outbox, new Live(() => outbox.flush()));
    setTimeout(() => void trimPictures(), idleAfter);
    workspace.libraries.push(
      ...(await Promise.all(session.spaces.map((space) => workspace.acquire(space.id, 'library', space.id)))),
    );
    return workspace;
  }

  /** A document was made here just now, so there is nothing to wait for from the server. */
  made(id: string): void {
    this.fresh.add(id);
  }

  /** Opens a document, or joins who has it open already. Every call is answered by one {@link release}. */
  acquire(space: string, kind: DocumentKind, id: string): Promise<OpenDocument> {
    const address = addressOf(space, kind, id);
    let entry = this.open.get(address);
    if (!entry) {
      const opening = OpenDocument.open(
        this.core,
        this.store,
        this.outbox,
        this.live,
        space,
        kind,
        id,
        this.fresh.has(id),
      );
      const made: { document: Promise<OpenDocument>; users: number; ready?: OpenDocument } = {
        document: opening,
        users: 0,
      };
      void opening.then((document) => (made.ready = document));
      this.open.set(address, made);
      entry = made;
    }
    entry.users++;
    return entry.document;
  }

  release(space: string, kind: DocumentKind, id: string): void {
    const address = addressOf(space, kind, id);
    const entry = this.open.get(address);
    if (!entry || --entry.users > 0) return;
    this.open.delete(address);
    void entry.document.then((document) => document.close());
  }

  /** A list from the server; without a connection, its last answer, whatever the query was. */
  async list<T>(path: string, query = ''): Promise<T> {
    try {
      const answer = await getJson<T>(path + query);
      void this.store.keepAnswer(path, answer);
      return answer;
    } catch (problem) {
      const kept = problem instanceof Unreachable ? await this.store.answer(path) : undefined;
      if (kept !== undefined) return kept as T;
      throw problem;
    }
  }

  stop(): void {
    this.outbox.stop();
    this.live.stop();
  }
}

const WorkspaceContext = createContext<Workspace | null>(null);

export function useWorkspace(): Workspace {
  const workspace = useContext(WorkspaceContext);
  if (!workspace) throw new Error('The workspace has not been started.');
  return workspace;
}

/** Starts the workspace of the person signed in, and shows its children when it is ready. */
export function WorkspaceProvider({ session, children }: { session: Session; children: ReactNode }) {
  const [workspace, setWorkspace] = useState<Workspace>();
  const person = session.person.id;
  useEffect(() => {
    let ended = false;
    const starting = Workspace.start(session);
    void starting.then((started) => (ended ? started.stop() : setWorkspace(started)));
    return () => {
      ended = true;
      void starting.then((started) => started.stop());
    };
    // A changed name or space list does not start a new workspace; another person does.
  }, [person]);
  if (!workspace) return <p className="grid h-full place-items-center text-quiet">Opening the library</p>;
  return <WorkspaceContext value={workspace}>{children}</WorkspaceContext>;
}

/** A document while the component is shown; undefined until it is open. Renders again with every change. */
export function useDocument(space: string, kind: DocumentKind, id: string): OpenDocument | undefined {
  const workspace = useWorkspace();
  const [document, setDocument] = useState<OpenDocument>();
  useEffect(() => {
    let ended = false;
    void workspace.acquire(space, kind, id).then((opened) => !ended && setDocument(opened));
    return () => {
      ended = true;
      workspace.release(space, kind, id);
      // It may be closed now: who comes back to it before another was open waits for it anew.
      setDocument(undefined);
    };
  }, [workspace, space, kind, id]);
  useSyncExternalStore(document?.subscribe ?? noSubscription, document?.getVersion ?? noVersion);
  return document?.address === addressOf(space, kind, id) ? document : undefined;
}

const noSubscription = () => () => {};
const noVersion = () => 0;
