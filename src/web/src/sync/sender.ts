import { type SentenceParts, sentenceIn } from '../words/sentences';
import type { Core } from '../core/runtime';
import { isBusy, Refused, request } from '../server/api';
import { idOf } from './address';
import type { StoredOperation, Waiting } from './deviceStore';
import { frameHead, framed, unframed } from './frames';

const mostFrames = 500;
/** A request holds so much at most, bytes; the server takes twice that. What is larger alone is sent alone. */
const mostBytes = 4 * 1024 * 1024;
/** After a document's own fault it is tried again after so long at first, and at most, ms. */
const leastHold = 1_000;
const mostHold = 60_000;
/** Refusals that say that the number an operation is signed with is another's. */
const numberTaken = new Set(['replica-taken', 'id-used']);

/** What is sent from, and what becomes of it. */
export interface SendingFrom {
  /** All that waits, oldest first. */
  waiting(): Promise<Waiting[]>;
  stored(document: string, stored: StoredOperation[]): Promise<void>;
  refused(refused: { waiting: Waiting; sentence: string }[]): Promise<void>;
  /** Some that wait are other operations now. */
  replaced(rows: Replaced[]): Promise<void>;
  /** The number that was signed with is another's. */
  renumbered(old: string): void;
  clockCorrected(offset: number): void;
  nearlyFull(document: string): void;
}

/** What waited, and what waits in its place. */
export interface Replaced {
  before: Waiting;
  bytes: Uint8Array;
}

/** Why something of a document is not sent for a while. */
export interface Trouble {
  document: string;
  sentence: string;
}

interface Hold {
  sentence: string;
  /** How long it was waited last, and until when it is waited now, ms. */
  pause: number;
  until: number;
  /** So many operations are sent at once until one request is taken. */
  most: number;
}

interface AppendAnswer {
  serverTime: number;
  /** Whether the document will soon take no more. */
  nearlyFull: boolean;
  results: { sequence: number; refused: ({ code: string; sentence: string } & SentenceParts) | null }[];
}

/** Sends what waits, document by document: what one of them meets with holds up no other. */
export class Sender {
  private readonly holds = new Map<string, Hold>();

  constructor(
    private readonly core: Core,
    private readonly from: SendingFrom,
  ) {}

  /** Documents that the server could not take something of, with its words. */
  get troubles(): Trouble[] {
    return [...this.holds].flatMap(([document, { sentence }]) => (sentence ? [{ document, sentence }] : []));
  }

  /** In how long the first document that is held is tried again, ms; none when none is. */
  get due(): number | undefined {
    const untils = [...this.holds.values()].filter((hold) => hold.sentence).map((hold) => hold.until);
    return untils.length > 0 ? Math.max(0, Math.min(...untils) - Date.now()) : undefined;
  }

  /** Sends until nothing waits but what is held. Throws when the server cannot be reached, is busy, or does not know the person. */
  async pass(signal: AbortSignal): Promise<void> {
    const waits = new Set((await this.from.waiting()).map((row) => row.document));
    for (const document of this.holds.keys()) if (!waits.has(document)) this.holds.delete(document);
    while (!signal.aborted) {
      const rows = await this.from.waiting();
      const now = Date.now();
      const next = rows.find((row) => (this.holds.get(row.document)?.until ?? 0) <= now);
      if (!next) return;
      await this.send(rows.filter((row) => row.document === next.document));
    }
  }

  private async send(all: Waiting[]): Promise<void> {
    const { space, kind, document, isPutBack } = all[0]!;
    const rows = this.batchOf(all);
    let answer: AppendAnswer;
    try {
      const response = await request(
        'POST',
        `/api/spaces/${space}/documents/${kind}/${idOf(document)}/operations${isPutBack ? '?putBack=true' : ''}`,
        framed(rows.map((row) => row.bytes)),
        'application/octet-stream',
      );
      answer = (await response.json()) as AppendAnswer;
    } catch (problem) {
      if (!(problem instanceof Refused) || problem.status === 401 || isBusy(problem.status)) throw problem;
      return this.notTaken(rows, problem);
    }
    this.holds.delete(document);
    await this.taken(document, all, rows, answer);
  }

  private batchOf(rows: Waiting[]): Waiting[] {
    const most = this.holds.get(rows[0]!.document)?.most ?? mostFrames;
    let bytes = 0;
    let count = 0;
    for (const row of rows) {
      bytes += frameHead + row.bytes.length;
      if (count > 0 && (bytes > mostBytes || count === most || row.isPutBack !== rows[0]!.isPutBack)) break;
      count++;
    }
    return rows.slice(0, count);
  }

  /** A request was answered by a refusal as a whole. */
  private async notTaken(rows: Waiting[], problem: Refused): Promise<void> {
    const { document } = rows[0]!;
    const { status, message: sentence } = problem;
    const before = this.holds.get(document);
    const isServers = status >= 500;
    // Room may be made, and a fault be mended: it waits.
    if (status === 507 || (isServers && rows.length === 1)) {
      const pause = Math.min(mostHold, before?.pause ? before.pause * 2 : leastHold);
      this.holds.set(document, { sentence, pause, until: Date.now() + pause, most: status === 507 ? mostFrames : 1 });
      return;
    }
    // One of them may be the reason: they are halved until it stands alone.
    if (rows.length > 1 && (isServers || status === 400 || status === 409 || status === 413)) {
      const most = Math.ceil(rows.length / 2);
      this.holds.set(document, { sentence: before?.sentence ?? '', pause: before?.pause ?? 0, until: 0, most });
      return;
    }
    this.holds.delete(document);
    await this.from.refused(rows.map((waiting) => ({ waiting, sentence })));
  }

  private async taken(document: string, all: Waiting[], rows: Waiting[], answer: AppendAnswer): Promise<void> {
    const refusals = rows.map((_, i) => answer.results[i]?.refused);
    const stored = rows.flatMap((waiting, i) =>
      refusals[i] || !answer.results[i] ? [] : [{ waiting, sequence: answer.results[i].sequence }],
    );
    await this.from.stored(document, stored);
    if (answer.nearlyFull) this.from.nearlyFull(document);
    const taken = rows.filter((_, i) => numberTaken.has(refusals[i]?.code ?? ''));
    if (taken.length > 0) {
      const isStored = new Set(stored.map((one) => one.waiting));
      await this.renumber(
        taken,
        all.filter((row) => !isStored.has(row)),
      );
    }
    const refused = rows.flatMap((waiting, i) => {
      const refusal = refusals[i];
      return refusal && refusal.code !== 'clock-ahead' && !numberTaken.has(refusal.code)
        ? [{ waiting, sentence: sentenceIn(refusal.sentence, refusal) }]
        : [];
    });
    if (refused.length > 0) await this.from.refused(refused);
    if (refusals.some((refusal) => refusal?.code === 'clock-ahead')) await this.correctClock(answer.serverTime);
  }

  /**
   * The number that some are signed with is another's: they get a fresh one, and what else waits of the document names them by it. Only those that were refused
   * for it: the others may be with the server already, though its answer never came.
   */
  private async renumber(taken: Waiting[], waiting: Waiting[]): Promise<void> {
    const old = this.core.DocumentBridge.NumberOf(taken[0]!.bytes);
    const fresh = unframed(
      this.core.DocumentBridge.Renumber(
        framed(taken.map((row) => row.bytes)),
        framed(waiting.map((row) => row.bytes)),
        newReplica(),
      ),
    );
    await this.from.replaced(waiting.map((before, i) => ({ before, bytes: fresh[i]! })));
    this.from.renumbered(old);
  }

  /** The device's clock ran ahead: takes the server's, and stamps anew what ran ahead with it. Such operations were never taken, so nobody has seen them. */
  private async correctClock(serverTime: number): Promise<void> {
    const now = Date.now();
    this.core.DocumentBridge.CorrectClock(serverTime, now);
    const all = await this.from.waiting();
    const rows = all.flatMap((before) => {
      const bytes = this.core.DocumentBridge.RestampAhead(before.bytes, serverTime, now);
      return bytes.length > 0 ? [{ before, bytes }] : [];
    });
    await this.from.replaced(rows);
    this.from.clockCorrected(serverTime - now);
  }
}

/** A number for an open application to sign with, drawn so that it is nobody else's. */
export function newReplica(): string {
  return [...crypto.getRandomValues(new Uint8Array(8))].map((byte) => byte.toString(16).padStart(2, '0')).join('');
}
