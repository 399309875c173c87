import { createContext, type ReactNode, useContext, useEffect, useState, useSyncExternalStore } from 'react';
import { type Core, type DocumentKind, loadCore } from '../core/runtime';
import { getJson, Unreachable } from '../session/api';
import type { Session } from '../session/session';
import { addressOf } from './address';
import { Ahead, type LeftStroke, leftAhead } from './ahead';
import type { StoreEvents } from './deviceSchema';
import { DeviceStore, takeOver } from './deviceStore';
import { Live } from './live';
import { reportFault } from './faults';
import { OpenDocument } from './openDocument';
import { Outbox } from './outbox';
import { newReplica } from './sender';
import { StoreScreen, type StoreStanding } from './StoreScreen';
import { type Noted, Steps } from './steps';
import { resetSyncState } from './syncState';
import { Tabs } from './tabs';
import { trimPictures } from '../pictures/trimPictures';

/** What has time waits for so long, ms, until the first screen is there. */
const idleAfter = 10_000;

/** Everything that is open for the person signed in: Core, the device's store, the outbox, the live connection, and documents shared by who shows them. */
export class Workspace {
  /** The libraries of all spaces; they stay open as long as somebody is signed in, since every screen asks them something. */
  readonly libraries: OpenDocument[] = [];
  readonly steps: Steps;
  private readonly fresh = new Set<string>();
  private readonly open = new Map<string, { document: OpenDocument; opening: Promise<OpenDocument>; users: number }>();

  private constructor(
    readonly core: Core,
    readonly store: DeviceStore,
    readonly outbox: Outbox,
    readonly live: Live,
    readonly ahead: Ahead,
  ) {
    this.steps = new Steps(core);
    outbox.onMade = (address, bytes) => this.open.get(address)?.document.hear(bytes);
    outbox.onStored = (address, operations) => this.open.get(address)?.document.acknowledge(operations);
    outbox.onAnew = (addresses) => {
      for (const address of addresses) void this.open.get(address)?.document.reload();
    };
  }

  static async start(session: Session, events: StoreEvents): Promise<Workspace> {
    const { id } = session.person;
    const [core, store] = await Promise.all([loadCore(), DeviceStore.open(id, events)]);
    core.DocumentBridge.Start(newReplica(), id);
    const ahead = await Ahead.open(id);
    const left = await leftAhead(id);
    await takeOver(store, left.operations);
    const outbox = new Outbox(core, store, new Tabs(id), id, ahead);
    outbox.onLeft = () => void outbox.saved().then(() => location.reload());
    outbox.flush();
    // Asked once and never again by most browsers; without it the device may be cleared when it runs short of room.
    void navigator.storage.persist().catch(() => {});
    const workspace = new Workspace(core, store, outbox, new Live(id, () => outbox.flush()), ahead);
    setTimeout(() => void trimPictures(), idleAfter);
    workspace.libraries.push(
      ...(await Promise.all(session.spaces.map((space) => workspace.acquire(space.id, 'library', space.id)))),
    );
    await workspace.finish(left.strokes);
    left.clear();
    return workspace;
  }

  /** Strokes that were in the hand when their tab was closed are ink as far as they were written. */
  private async finish(strokes: LeftStroke[]): Promise<void> {
    const { PenBridge } = this.core;
    for (const { space, page, pen, stabilising, layer, startedAt, samples } of strokes) {
      const document = await this.acquire(space, 'page', page);
      try {
        const stroke = PenBridge.Begin(pen, stabilising);
        PenBridge.Add(stroke, samples);
        PenBridge.End(stroke);
        document.perform((handle, now) => PenBridge.Keep(stroke, handle, layer, startedAt, now));
        await this.outbox.saved();
      } catch (problem) {
        reportFault('A stroke that was left could not be finished.', problem, document.address);
      } finally {
        this.release(space, 'page', page);
      }
    }
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
      // It listens from the first moment: what another tab makes while the store is read is not missed.
      const document = new OpenDocument(this, space, kind, id);
      entry = { document, opening: document.open(this.fresh.has(id)).then(() => document), users: 0 };
      this.open.set(address, entry);
    }
    entry.users++;
    return entry.opening;
  }

  release(space: string, kind: DocumentKind, id: string): void {
    const address = addressOf(space, kind, id);
    const entry = this.open.get(address);
    if (!entry || --entry.users > 0) return;
    this.open.delete(address);
    void entry.opening.then(() => entry.document.close());
  }

  /** Takes back what was done in libraries and notebooks, last first. */
  async takeBack(noted: readonly Noted[]): Promise<void> {
    for (const { space, kind, id, changes } of noted.toReversed()) {
      const document = await this.acquire(space, kind, id);
      try {
        document.performTogether((handle, now) => this.core.UndoBridge.Back(handle, changes, now));
      } finally {
        this.release(space, kind, id);
      }
    }
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
    resetSyncState();
    this.outbox.stop();
    this.live.stop();
    this.store.close();
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
  const [standing, setStanding] = useState<StoreStanding>('opening');
  const [problem, setProblem] = useState('');
  const person = session.person.id;
  useEffect(() => {
    let ended = false;
    const tell = (now: StoreStanding) => !ended && setStanding(now);
    const starting = Workspace.start(session, {
      blocked: () => tell('blocked'),
      opened: () => tell('open'),
      taken: () => tell('taken'),
    });
    starting.then(
      (started) => (ended ? started.stop() : setWorkspace(started)),
      (error: unknown) => {
        reportFault('The application could not start.', error);
        setProblem(error instanceof Error ? error.message : String(error));
        tell('failed');
      },
    );
    return () => {
      ended = true;
      void starting.then((started) => started.stop()).catch(() => {});
    };
    // A changed name or space list does not start a new workspace; another person does.
  }, [person]);
  if (standing === 'taken' || standing === 'failed' || standing === 'blocked')
    return <StoreScreen standing={standing} problem={problem} />;
  if (!workspace) return <StoreScreen standing="opening" problem="" />;
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
