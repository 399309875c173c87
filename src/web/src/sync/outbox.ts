import type { Core } from '../core/runtime';
import { getJson, isBusy, Refused, request } from '../session/api';
import { idOf } from './address';
import type { DeviceStore, Waiting } from './deviceStore';
import { unframed } from './frames';
import { setSyncState } from './syncState';

const mostFrames = 500;
/** Refusals that say that the number an operation is signed with is another's. */
const numberTaken = new Set(['replica-taken', 'id-used']);
const leastPause = 500;
const mostPause = 10_000;

interface AppendAnswer {
  serverTime: number;
  /** Whether the document will soon take no more. */
  nearlyFull: boolean;
  results: { sequence: number; refused: { code: string; sentence: string } | null }[];
}

/** Sends what waits, oldest first, and keeps trying. One tab of a browser sends at a time. */
export class Outbox {
  /** Called with operations of one document that the server has stored, by their sequence numbers in ascending order. */
  onStored: (document: string, sequences: number[]) => void = () => {};
  /** Called after waiting operations got new stamps: open documents must be read again. */
  onRestamped: (documents: Set<string>) => void = () => {};

  private readonly unsaved: Waiting[] = [];
  private running = false;
  private again = false;
  private pause = leastPause;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private readonly otherTabs = new BroadcastChannel('quill-outbox');

  private readonly ended = new AbortController();
  private adding: Promise<void> = Promise.resolve();
  private saving: Promise<void> = Promise.resolve();
  private counting: ReturnType<typeof setTimeout> | undefined;
  private waitingForSettling: { resolve: () => void; reject: (problem: unknown) => void }[] = [];

  constructor(
    private readonly core: Core,
    private readonly store: DeviceStore,
    private readonly person: string,
  ) {
    const { signal } = this.ended;
    addEventListener('online', () => this.flush(), { signal });
    addEventListener('offline', () => setSyncState({ problem: 'unreachable' }), { signal });
    addEventListener('beforeunload', (event) => this.unsaved.length > 0 && event.preventDefault(), { signal });
    this.otherTabs.onmessage = ({ data }: MessageEvent<'changed' | { renumbered: string }>) => {
      if (data !== 'changed' && this.core.DocumentBridge.Number() === data.renumbered) {
        // Another tab sent what was made here, and gave it a fresh number.
        this.core.DocumentBridge.Renew(data.renumbered, newReplica());
        void this.store.outbox().then((rows) => this.onRestamped(new Set(rows.map((row) => row.document))));
      }
      void this.count();
    };
  }

  add(waiting: Waiting): Promise<void> {
    this.unsaved.push(waiting);
    this.adding = this.adding.then(async () => {
      await this.saveOnDevice();
      this.flush();
      this.countSoon();
    });
    return this.adding;
  }

  /** Many operations in a row, as when a notebook is made, are counted once. */
  private countSoon(): void {
    if (this.counting !== undefined) return;
    this.counting = setTimeout(() => {
      this.counting = undefined;
      if (!this.ended.signal.aborted) void this.count();
    }, 0);
  }

  /** Puts into the store what is only in memory; where there is no room it stays there, is tried again, and leaving the page asks first. */
  private saveOnDevice(): Promise<void> {
    // One after the other: two at once would both take the first, and then take out one too many.
    this.saving = this.saving.then(() => this.saveUnsaved());
    return this.saving;
  }

  private async saveUnsaved(): Promise<void> {
    try {
      while (this.unsaved.length > 0) {
        const rows = [...this.unsaved];
        await this.store.addToOutbox(rows);
        this.unsaved.splice(0, rows.length);
      }
    } catch {
      setSyncState({ problem: 'no-room' });
    }
  }

  /** Sends no more, since somebody else signs in here. What waits stays on the device. */
  stop(): void {
    this.ended.abort();
    clearTimeout(this.timer);
    this.otherTabs.close();
  }

  /** Tries to send now, and again later when it does not work. */
  flush(): void {
    clearTimeout(this.timer);
    if (this.ended.signal.aborted) return;
    if (this.running) {
      this.again = true;
      return;
    }
    this.running = true;
    void navigator.locks
      .request('quill-outbox', () => this.sendAll())
      .then(
        () => {
          this.pause = leastPause;
          setSyncState({ problem: this.unsaved.length > 0 ? 'no-room' : 'none' });
          for (const { resolve } of this.waitingForSettling.splice(0)) resolve();
        },
        (problem: unknown) => {
          for (const { reject } of this.waitingForSettling.splice(0)) reject(problem);
          this.failed(problem);
        },
      )
      .finally(async () => {
        this.running = false;
        if (this.ended.signal.aborted) return;
        await this.count();
        this.otherTabs.postMessage('changed');
        if (this.again) {
          this.again = false;
          this.flush();
        }
      });
  }

  /** What was made of a document and is not in the device's store; waits for what is on its way there. */
  async unsavedOf(document: string): Promise<Uint8Array[]> {
    await this.adding;
    return this.unsaved.filter((waiting) => waiting.document === document).map((waiting) => waiting.bytes);
  }

  /** Resolves when nothing waits any more; throws when the server cannot be reached. */
  async settled(): Promise<void> {
    await this.adding;
    if ((await this.store.outbox()).length === 0) return;
    this.flush();
    await new Promise<void>((resolve, reject) => this.waitingForSettling.push({ resolve, reject }));
  }

  async count(): Promise<void> {
    const [rows, refused] = await Promise.all([this.store.outbox(), this.store.refused()]);
    setSyncState({
      waiting: rows.length,
      documents: new Set(rows.map((row) => row.document)).size,
      refused: [...new Set(refused.map((row) => row.sentence))],
    });
  }

  async dropRefused(): Promise<void> {
    await this.store.dropRefused();
    await this.count();
  }

  private failed(problem: unknown): void {
    const signedOut = problem instanceof Refused && problem.status === 401;
    const busy = problem instanceof Refused && isBusy(problem.status);
    setSyncState({ problem: signedOut ? 'signed-out' : busy ? 'busy' : 'unreachable' });
    if (signedOut) return;
    if (busy) this.pause = Math.max(this.pause, problem.retryAfter);
    this.timer = setTimeout(() => this.flush(), this.pause);
    this.pause = Math.min(this.pause * 2, mostPause);
  }

  private async sendAll(): Promise<void> {
    await this.saveOnDevice();
    for (let rows = await this.store.outbox(); rows.length > 0; rows = await this.store.outbox()) {
      const { document } = rows[0]!;
      const own = rows.filter((row) => row.document === document).slice(0, mostFrames);
      await this.send(own);
    }
  }

  private async send(rows: Waiting[]): Promise<void> {
    const { space, kind, document } = rows[0]!;
    let answer: AppendAnswer;
    try {
      const response = await request(
        'POST',
        `/api/spaces/${space}/documents/${kind}/${idOf(document)}/operations`,
        framed(rows),
        'application/octet-stream',
      );
      answer = (await response.json()) as AppendAnswer;
    } catch (problem) {
      if (
        !(problem instanceof Refused) ||
        problem.status === 401 ||
        problem.status === 429 ||
        (problem.status >= 500 && problem.status !== 507)
      )
        throw problem;
      await this.makeSureOfPerson();
      for (const row of rows) await this.store.markRefused(row, problem.message);
      return;
    }
    if (answer.results.some((result) => result.refused?.code === 'wrong-author')) await this.makeSureOfPerson();
    const stored = rows.flatMap((waiting, i) =>
      answer.results[i]!.refused ? [] : [{ waiting, sequence: answer.results[i]!.sequence }],
    );
    await this.store.markStored(stored);
    this.onStored(
      document,
      stored.map(({ sequence }) => sequence).sort((a, b) => a - b),
    );
    if (answer.nearlyFull) setSyncState({ nearlyFull: document });
    const taken = rows.find((_, i) => numberTaken.has(answer.results[i]!.refused?.code ?? ''));
    if (taken) await this.renumber(taken);
    for (const [i, row] of rows.entries()) {
      const { refused } = answer.results[i]!;
      if (refused && refused.code !== 'clock-ahead' && !numberTaken.has(refused.code))
        await this.store.markRefused(row, refused.sentence);
    }
    if (answer.results.some((result) => result.refused?.code === 'clock-ahead'))
      await this.correctClock(answer.serverTime);
  }

  /** Throws as when signed out if another person has signed in in another tab: what was refused them may still be taken from its author. */
  private async makeSureOfPerson(): Promise<void> {
    const { person } = await getJson<{ person?: { id: string } }>('/api/session');
    if (person?.id !== this.person) throw new Refused(401, 'signed-out', 'Another person is signed in.');
  }

  /** The number this device signs with is another's: takes a fresh one, and gives it to all that waits, since nobody has seen it yet. */
  private async renumber(refused: Waiting): Promise<void> {
    const rows = await this.store.outbox();
    const old = this.core.DocumentBridge.Number();
    const fresh = unframed(this.core.DocumentBridge.Renumber(refused.bytes, joined(frames(rows)), newReplica()));
    await this.store.replaceWaiting(rows.map((row, i) => ({ ...row, bytes: fresh[i]! })));
    this.onRestamped(new Set(rows.map((row) => row.document)));
    this.otherTabs.postMessage({ renumbered: old });
  }

  /** The device's clock ran ahead: takes the server's, and stamps anew all that waits, since nobody has seen it yet. */
  private async correctClock(serverTime: number): Promise<void> {
    this.core.DocumentBridge.CorrectClock(serverTime, Date.now());
    const rows = (await this.store.outbox()).map((row) => ({
      ...row,
      bytes: this.core.DocumentBridge.Restamp(row.bytes, Date.now()),
    }));
    await this.store.replaceWaiting(rows);
    this.onRestamped(new Set(rows.map((row) => row.document)));
  }
}

/** A number for an open application to sign with, drawn so that it is nobody else's. */
export function newReplica(): string {
  return [...crypto.getRandomValues(new Uint8Array(8))].map((byte) => byte.toString(16).padStart(2, '0')).join('');
}

/** Each batch after its length in four bytes, lowest first. */
function frames(rows: Waiting[]): Uint8Array<ArrayBuffer>[] {
  return rows.flatMap((row) => {
    const length = new Uint8Array(4);
    new DataView(length.buffer).setUint32(0, row.bytes.length, true);
    return [length, row.bytes.slice()];
  });
}

function framed(rows: Waiting[]): Blob {
  return new Blob(frames(rows));
}

function joined(parts: Uint8Array[]): Uint8Array {
  const whole = new Uint8Array(parts.reduce((sum, part) => sum + part.length, 0));
  let at = 0;
  for (const part of parts) {
    whole.set(part, at);
    at += part.length;
  }
  return whole;
}
