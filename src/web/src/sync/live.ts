import { type HubConnection, HubConnectionState } from '@microsoft/signalr';
import { getJson } from '../server/api';
import { hubAt } from './hub';
import { setSyncState } from './syncState';

/** What a document hears from the others while it is open. */
export interface LiveListener {
  stored(first: number, count: number, batch: Uint8Array): void;
  /** Something was stored that is not passed on, up to this number: what stands is asked for. */
  later?(last: number): void;
  wet?(person: string, connection: string, piece: Uint8Array): void;
  pen?(person: string, connection: string, x: number, y: number): void;
  /** Somebody has something selected, or drags it: the corners of its frame; empty for nothing any more. */
  held?(person: string, connection: string, frame: Uint8Array): void;
  /** Somebody types into a text: it, and where; empty for nowhere any more. */
  caret?(person: string, connection: string, item: string, from: string, to: string): void;
  present?(people: string[]): void;
  /** The connection is there (again): catch up. */
  joined(): void;
}

type Said = 'Caret' | 'Hold' | 'Stand' | 'Follow' | 'View' | 'Teach' | 'Show' | 'Point' | 'Hand' | 'Lower';
type Word = string | number | boolean | string[] | Uint8Array;

const pauses = [200, 500, 1000, 2000, 4000];

/** The live connection: joins the documents that are shown, and joins them again after every break. */
export class Live {
  /** Something was written in a space that is followed, or may have been while there was no connection. */
  onNews: (() => void) | undefined;
  /** Somebody came into a space that is followed, or asks to. */
  onCompany: (() => void) | undefined;
  /** There is a connection again after a break, or after a start without one, in which rights and locks may have changed. */
  onAgain: (() => void) | undefined;

  /** Somebody looks at a page of a notebook, or not any more, when the notebook's id is empty. */
  onWhere: ((person: string, connection: string, notebook: string, page: string) => void) | undefined;
  /** Somebody begins to follow what a connection's person sees, or ends it. */
  onFollowed: ((connection: string, leader: string, on: boolean) => void) | undefined;
  onView: ((connection: string, seen: { page: string; x: number; y: number; width: number }) => void) | undefined;
  /** Told that a document was joined on this connection. */
  readonly onJoined = new Set<(address: string) => void>();
  /** Told that there is no connection any more. */
  readonly onBroken = new Set<() => void>();

  private readonly hub: HubConnection;
  private readonly listeners = new Map<string, LiveListener>();
  private name = '';
  private readonly names = new Set<string>();
  private tries = 0;
  /** There was a connection before, or none was to be had: what was told meanwhile was missed. */
  private mayHaveMissed = false;
  private stopped = false;

  constructor(
    person: string,
    private readonly onConnected: () => void,
  ) {
    this.hub = hubAt(`/live?person=${person}`);
    this.hub.on('stored', (address: string, first: number, count: number, batch: Uint8Array) =>
      this.listeners.get(address)?.stored(first, count, batch),
    );
    this.hub.on('later', (address: string, last: number) => this.listeners.get(address)?.later?.(last));
    this.hub.on('wet', (address: string, person: string, connection: string, piece: Uint8Array) =>
      this.listeners.get(address)?.wet?.(person, connection, piece),
    );
    this.hub.on('pen', (address: string, person: string, connection: string, x: number, y: number) =>
      this.listeners.get(address)?.pen?.(person, connection, x, y),
    );
    this.hub.on('held', (address: string, person: string, connection: string, frame: Uint8Array) =>
      this.listeners.get(address)?.held?.(person, connection, frame),
    );
    this.hub.on(
      'caret',
      (address: string, person: string, connection: string, item: string, from: string, to: string) =>
        this.listeners.get(address)?.caret?.(person, connection, item, from, to),
    );
    this.hub.on('present', (address: string, people: string[]) => this.listeners.get(address)?.present?.(people));
    this.hub.on('news', () => this.onNews?.());
    this.hub.on('company', () => this.onCompany?.());
    this.hub.on('you', (name: string) => {
      this.name = name;
      this.names.add(name);
    });
    this.hub.on('where', (_address: string, person: string, connection: string, notebook: string, page: string) =>
      this.onWhere?.(person, connection, notebook, page),
    );
    this.hub.on('followed', (_address: string, _person: string, connection: string, leader: string, on: number) =>
      this.onFollowed?.(connection, leader, on === 1),
    );
    this.hub.on(
      'view',
      (_address: string, _person: string, connection: string, page: string, x: number, y: number, width: number) =>
        this.onView?.(connection, { page, x, y, width }),
    );
    this.hub.onclose(() => {
      for (const broken of this.onBroken) broken();
      this.connectLater();
    });
    addEventListener('online', () => void this.connect());
    void this.connect();
  }

  join(address: string, listener: LiveListener): void {
    this.listeners.set(address, listener);
    void this.sendJoin(address, listener);
  }

  leave(address: string): void {
    this.listeners.delete(address);
    if (this.connected) void this.hub.send('Leave', address).catch(() => {});
  }

  /** Passes on a piece of wet ink. Lost pieces do not matter: the stroke follows when the pen is lifted. */
  wet(address: string, piece: Uint8Array): void {
    if (this.connected) void this.hub.send('Wet', address, piece).catch(() => {});
  }

  pen(address: string, x: number, y: number): void {
    if (this.connected) void this.hub.send('Pen', address, Math.round(x), Math.round(y)).catch(() => {});
  }

  /** The name of this connection, by which others know it. */
  get id(): string {
    return this.name;
  }

  /** Whether it is this window's connection, or one that it had before: the server may take a while to see that one broke. */
  isOwn(connection: string): boolean {
    return this.names.has(connection);
  }

  /** Passes something on that is lost without harm when there is no connection. */
  say(method: Said, ...words: Word[]): void {
    if (this.connected) void this.hub.send(method, ...words).catch(() => {});
  }

  /** Asks for something that may be refused; `lost` when there was no connection to ask over. */
  async ask(method: Said, ...words: Word[]): Promise<'done' | 'refused' | 'lost'> {
    if (!this.connected) return 'lost';
    try {
      await this.hub.invoke(method, ...words);
      return 'done';
    } catch {
      return this.connected ? 'refused' : 'lost';
    }
  }

  /** Hears something that is passed on, by its name. */
  on<Words extends unknown[]>(method: string, heard: (...words: Words) => void): void {
    this.hub.on(method, (...words) => heard(...(words as Words)));
  }

  stop(): void {
    this.stopped = true;
    void this.hub.stop();
  }

  private get connected(): boolean {
    return this.hub.state === HubConnectionState.Connected;
  }

  private async connect(): Promise<void> {
    if (this.stopped || this.hub.state !== HubConnectionState.Disconnected) return;
    try {
      await this.hub.start();
    } catch {
      this.mayHaveMissed = true;
      void this.seeWhetherSignedOut();
      this.connectLater();
      return;
    }
    this.tries = 0;
    this.onConnected();
    if (this.mayHaveMissed) {
      this.onNews?.();
      this.onAgain?.();
    }
    this.mayHaveMissed = true;
    for (const [address, listener] of this.listeners) void this.sendJoin(address, listener);
  }

  /** A connection is refused also when the sign-in was ended elsewhere, which is said. */
  private async seeWhetherSignedOut(): Promise<void> {
    const session = await getJson<{ person?: unknown }>('/api/session').catch(() => undefined);
    if (session && !session.person && !this.stopped) setSyncState({ problem: 'signed-out' });
  }

  private connectLater(): void {
    if (!this.stopped) setTimeout(() => void this.connect(), pauses[Math.min(this.tries++, pauses.length - 1)]);
  }

  private async sendJoin(address: string, listener: LiveListener): Promise<void> {
    if (!this.connected) return;
    try {
      await this.hub.invoke('Join', address);
      listener.joined();
      for (const joined of this.onJoined) joined(address);
    } catch {
      // Either the connection broke, and joining follows with the next one, or the right to read is gone, which the next request says.
    }
  }
}
