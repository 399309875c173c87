import type { DocumentKind } from '../core/runtime';
import type { Waiting } from './deviceStore';
import { base64, fromBase64 } from './faults';

const prefix = 'quill.ahead.';
/** More at once, as when a planner is made, is not written ahead: it takes longer to write than to keep. Bytes. */
const mostBytes = 256 * 1024;
/** What the pen wrote is written ahead so often, ms. */
const inkEvery = 80;

/** What is to be known of a stroke in the hand to finish it without the hand. */
export interface StrokeHead {
  space: string;
  /** A page, where nothing is said; or an aside. */
  kind?: DocumentKind;
  page: string;
  pen: number[];
  stabilising: number;
  layer: string;
  /** UTC ms. */
  startedAt: number;
}

/** A stroke that its tab did not finish: its samples in sixes, as Core takes them. */
export interface LeftStroke extends StrokeHead {
  samples: Int32Array<ArrayBuffer>;
}

/** What was typed into a text of a page and its tab did not make an operation of: what stands for it, as Core has it. */
export interface LeftText {
  space: string;
  kind: DocumentKind;
  page: string;
  typed: Uint8Array;
}

/** What tabs that are gone have left. */
export interface LeftAhead {
  operations: Waiting[];
  strokes: LeftStroke[];
  texts: LeftText[];
  /** To be called once all of it is in the device's store. */
  clear: () => void;
}

type KeptRow = [space: string, kind: DocumentKind, document: string, bytes: string, isPutBack: boolean];

/**
 * Writes at once, where it stays whatever becomes of the tab, what the device's store takes a moment to keep: operations on their way there, and the stroke in the
 * hand. Who starts next finishes what a tab that is gone has left.
 */
export class Ahead {
  private number = 0;
  private readonly own: string;
  private readonly ended = new AbortController();

  private constructor(
    person: string,
    private readonly tab: string,
  ) {
    this.own = `${prefix}${person}.${tab}.`;
  }

  /** Says from now on that this tab is alive, so that nobody takes over what it writes. */
  static async open(person: string): Promise<Ahead> {
    const ahead = new Ahead(person, crypto.randomUUID());
    await new Promise<void>((held) => {
      void navigator.locks
        .request(
          lockOf(ahead.tab),
          () =>
            new Promise<void>((letGo) => {
              ahead.ended.signal.addEventListener('abort', () => letGo());
              held();
            }),
        )
        .catch(() => held());
    });
    return ahead;
  }

  stop(): void {
    this.ended.abort();
  }

  /** Writes operations ahead; answers with what to call once they are kept. */
  operations(rows: readonly Waiting[]): () => void {
    if (rows.reduce((sum, row) => sum + row.bytes.length, 0) > mostBytes) return () => {};
    const key = `${this.own}op.${this.number++}`;
    const kept = rows.map(({ space, kind, document, bytes, isPutBack }): KeptRow => [
      space,
      kind,
      document,
      base64(bytes),
      isPutBack ?? false,
    ]);
    put(key, JSON.stringify(kept));
    return () => localStorage.removeItem(key);
  }

  /** Writes ahead what is typed until it is an operation. */
  text(head: Omit<LeftText, 'typed'>): TextAhead {
    return new TextAhead(`${this.own}text.${this.number++}`, head);
  }

  /** Writes a stroke ahead while it is written. */
  stroke(head: StrokeHead): StrokeAhead {
    return new StrokeAhead(`${this.own}ink.${this.number++}.`, head);
  }
}

export class TextAhead {
  constructor(
    private readonly key: string,
    private readonly head: Omit<LeftText, 'typed'>,
  ) {}

  /** All that was typed, in place of what was kept before. */
  keep(typed: Uint8Array): void {
    if (typed.length === 0) localStorage.removeItem(this.key);
    else put(this.key, JSON.stringify({ ...this.head, typed: base64(typed) }));
  }

  /** It became an operation, or none. */
  done(): void {
    localStorage.removeItem(this.key);
  }
}

export class StrokeAhead {
  private readonly keys: string[] = [];
  private waiting: number[] = [];
  private writtenAt = -Infinity;

  constructor(
    private readonly key: string,
    head: StrokeHead,
  ) {
    this.put('head', JSON.stringify(head));
  }

  /** More samples, in sixes. */
  add(samples: ArrayLike<number>): void {
    for (let i = 0; i < samples.length; i++) this.waiting.push(samples[i]!);
    if (performance.now() - this.writtenAt < inkEvery) return;
    this.writtenAt = performance.now();
    this.put(String(this.keys.length), JSON.stringify(this.waiting));
    this.waiting = [];
  }

  /** These samples in place of all before. */
  replace(samples: ArrayLike<number>): void {
    for (const key of this.keys.splice(1)) localStorage.removeItem(key);
    this.waiting = [];
    this.writtenAt = -Infinity;
    this.add(samples);
  }

  /** It became an operation, or none. */
  done(): void {
    for (const key of this.keys.splice(0)) localStorage.removeItem(key);
  }

  private put(name: string, text: string): void {
    const key = this.key + name;
    this.keys.push(key);
    put(key, text);
  }
}

/** What tabs of a person that are gone have left on this device. */
export async function leftAhead(person: string): Promise<LeftAhead> {
  const { held = [] } = await navigator.locks.query();
  const alive = new Set(held.map((lock) => lock.name));
  const keys = Object.keys(localStorage)
    .filter((key) => key.startsWith(`${prefix}${person}.`) && !alive.has(lockOf(tabOf(key))))
    .sort((a, b) => numbersOf(a) - numbersOf(b));
  const operations: Waiting[] = [];
  const heads = new Map<string, LeftStroke>();
  const texts: LeftText[] = [];
  for (const key of keys) {
    const [, , , , kind, number, part] = key.split('.');
    const text = localStorage.getItem(key) ?? '';
    try {
      if (kind === 'op')
        for (const [space, of, document, bytes, isPutBack] of JSON.parse(text) as KeptRow[])
          operations.push({ space, kind: of, document, bytes: fromBase64(bytes), ...(isPutBack ? { isPutBack } : {}) });
      else if (kind === 'text') {
        const left = JSON.parse(text) as Omit<LeftText, 'typed'> & { typed: string };
        texts.push({ ...left, typed: fromBase64(left.typed) });
      } else if (part === 'head')
        heads.set(`${tabOf(key)}.${number}`, { ...(JSON.parse(text) as StrokeHead), samples: new Int32Array() });
      else {
        const stroke = heads.get(`${tabOf(key)}.${number}`);
        if (stroke) stroke.samples = Int32Array.from([...stroke.samples, ...(JSON.parse(text) as number[])]);
      }
    } catch {
      // Half written, or of another version: what can be read of it is.
    }
  }
  return {
    operations,
    texts,
    strokes: [...heads.values()].filter((stroke) => stroke.samples.length >= 6),
    clear: () => keys.forEach((key) => localStorage.removeItem(key)),
  };
}

/** Takes what a person has left ahead off this device. */
export function forgetAhead(person: string): void {
  for (const key of Object.keys(localStorage)) if (key.startsWith(`${prefix}${person}.`)) localStorage.removeItem(key);
}

export const isAhead = (key: string): boolean => key.startsWith(prefix);

/** Where there is no room, what is on its way to the store still gets there, if the tab lives. */
function put(key: string, text: string): void {
  try {
    localStorage.setItem(key, text);
  } catch {
    // Nothing more can be done.
  }
}

const lockOf = (tab: string): string => `quill-tab-${tab}`;
// The prefix has two dots of its own.
const tabOf = (key: string): string => key.split('.')[3]!;

/** By the number of what was written, then by its part; a head comes before all parts. */
function numbersOf(key: string): number {
  const [, , , , , number, part] = key.split('.');
  return Number(number) * 1e6 + (part === undefined || part === 'head' ? 0 : Number(part));
}
