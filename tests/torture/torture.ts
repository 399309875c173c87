import { rehearsals } from '../../src/web/src/app/rehearsal';
import { loadCore } from '../../src/web/src/core/runtime';
import { setAntiforgery } from '../../src/web/src/server/api';
import { type Session } from '../../src/web/src/server/session';
import { fetchSession, signIn } from '../../src/web/src/sync/entering';
import { base64 } from '../../src/web/src/sync/faults';
import { DeviceStore, takeOver } from '../../src/web/src/sync/deviceStore';
import { OpenDocument } from '../../src/web/src/sync/openDocument';
import { syncState } from '../../src/web/src/sync/syncState';
import { Workspace } from '../../src/web/src/sync/workspace';
import { act, type Documents } from './acts';
import { Chance } from './chance';
import { type ChaosSettings, counts, installChaos, setChaos } from './chaos';

/** Where all write. */
interface Place {
  space: string;
  notebook: string;
  pages: string[];
}

/** What a tab has said of operations, each as document and batch. */
interface Said {
  /** They are on the device. */
  kept: string[];
  /** The server has them. */
  saved: string[];
}

let workspace: Workspace;
let documents: Documents;
let said: Said = { kept: [], saved: [] };

installChaos();
// Much sooner than in life, so that it happens while others write.
OpenDocument.rowsBeforeCompacting = 6;

const told = (document: string, bytes: Uint8Array) => `${document} ${base64(bytes)}`;

async function start(email: string, password: string, place: Place, chaos: ChaosSettings): Promise<void> {
  let session: Session | null = null;
  // The server may be away at this moment.
  for (let tries = 0; !session && tries < 100; tries++) {
    try {
      session = (await fetchSession()) ?? (await signIn(email, password));
    } catch {
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
  }
  if (!session) throw new Error('The person could not sign in.');
  // The application itself is there: only what it keeps and sends is tortured.
  await loadCore();
  setChaos(chaos);
  workspace = await Workspace.start(session, { blocked() {}, opened() {}, taken() {} });
  const { store, outbox } = workspace;
  const add = store.addToOutbox.bind(store);
  store.addToOutbox = async (rows) => {
    await add(rows);
    for (const row of rows) said.kept.push(told(row.document, row.bytes));
  };
  const stored = outbox.onStored;
  outbox.onStored = (document, operations) => {
    for (const { bytes } of operations) said.saved.push(told(document, bytes));
    stored(document, operations);
  };
  await open(place);
}

async function open({ space, notebook, pages }: Place): Promise<void> {
  documents = {
    library: await workspace.acquire(space, 'library', space),
    notebook: await workspace.acquire(space, 'notebook', notebook),
    pages: await Promise.all(pages.map((page) => workspace.acquire(space, 'page', page))),
  };
}

/** Closes all and opens it again, as somebody does who turns pages. */
async function turn(place: Place): Promise<void> {
  for (const page of documents.pages) workspace.release(place.space, 'page', page.id);
  workspace.release(place.space, 'notebook', place.notebook);
  workspace.release(place.space, 'library', place.space);
  await open(place);
}

function take(): Said & { counts: typeof counts } {
  const taken = said;
  said = { kept: [], saved: [] };
  return { ...taken, counts };
}

/** Nothing goes wrong any more; resolves when nothing waits and all that the server has is here. */
async function settle(): Promise<string> {
  setChaos(undefined);
  const until = performance.now() + 60_000;
  for (;;) {
    workspace.outbox.flush();
    await Promise.all(all().map((document) => document.catchUp()));
    await workspace.outbox.count();
    const { waiting, problem, refused, troubles } = syncState();
    if (refused.length > 0) return `refused: ${refused.join(' ')}`;
    if (waiting === 0 && problem === 'none' && troubles.length === 0) return '';
    if (performance.now() > until) return `still ${waiting} waiting, ${problem} ${JSON.stringify(troubles)}`;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
}

const all = (): OpenDocument[] => [documents.library, documents.notebook, ...documents.pages];

/** What Core shows of each document. */
function states(): Record<string, string> {
  return Object.fromEntries(
    all().map((document) => [document.address, base64(workspace.core.DocumentBridge.EncodeState(document.handle))]),
  );
}

Object.assign(globalThis, {
  torture: {
    start,
    turn,
    take,
    settle,
    states,
    setChaos,
    /** Core as a tab has it, and what is rehearsed on it. */
    core: loadCore,
    rehearsals,
    /** A store without an application, for tests of the store alone. */
    store: (name: string) => DeviceStore.open(name, { blocked() {}, opened() {}, taken() {} }),
    storeTold: (name: string, taken: () => void) => DeviceStore.open(name, { blocked() {}, opened() {}, taken }),
    takeOver,
    act: (seed: number, count: number) => {
      const chance = new Chance(seed);
      for (let i = 0; i < count; i++) act(workspace.core, documents, chance);
    },
  },
});
setAntiforgery('');
