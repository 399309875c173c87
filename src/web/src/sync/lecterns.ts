import { addressOf } from './address';
import type { Live } from './live';
import { paced } from './paced';
import { readPlaces, writePlaces } from './places';
import type { Whereabouts } from './whereabouts';

/** Where the light falls on a dimmed page, 0.01 mm. */
export interface Spotlight {
  x: number;
  y: number;
  radius: number;
}

/** What somebody shows from a lectern. */
export interface Lectern {
  id: string;
  leader: string;
  connection: string;
  space: string;
  notebook: string;
  /** Empty where one follows the library alone, or the leader showed none yet. */
  page: string;
  /** The curtains that are lifted for all. */
  lifted: readonly string[];
  spot: Spotlight | undefined;
  /** Since when its leader stands there on this connection, UTC milliseconds. */
  since: number;
}

/** The lectern that one stands at in this window. */
export interface OwnLectern {
  id: string;
  space: string;
  notebook: string;
  openedAt: number;
  page: string;
  lifted: readonly string[];
  spot: Spotlight | undefined;
  /** What the pen does on the sheet: it writes, or it shows. */
  hand: 'pen' | 'pointer' | 'spotlight';
}

/** A raised hand; since when, UTC milliseconds since 1970. */
export interface RaisedHand {
  person: string;
  connection: string;
  since: number;
}

/** Hears where a leader points: places as x and y in 0.01 mm, one after the other. */
export type PointListener = (connection: string, page: string, places: readonly number[]) => void;

const kept = 'quill.lectern';
/** What is pointed at is told no more often than this, ms; the spotlight as well. */
const betweenPoints = 40;
/** A leader who says nothing for ten minutes has left the lectern; so it is said more often, ms. */
const betweenStanding = 4 * 60_000;

/** Teaching from a page, and being taught. All of it but that a lectern is open ends with the connection, and is told anew with the next one. */
export class Lecterns {
  private readonly known = new Map<string, Lectern>();
  private readonly raised = new Map<string, RaisedHand>();
  private listed: readonly Lectern[] = [];
  private hands: readonly RaisedHand[] = [];
  private led: OwnLectern | undefined = readKept();
  private followedId = '';
  private followedIn = '';
  private handIn = '';
  private readonly listeners = new Set<() => void>();
  private readonly pointListeners = new Set<PointListener>();
  private pointed: number[] = [];
  private readonly pointSoon = paced(betweenPoints, () => this.live.say('Point', writePlaces(this.pointed.splice(0))));
  private readonly showSoon = paced(betweenPoints, () => this.show());

  constructor(
    private readonly live: Live,
    private readonly whereabouts: Whereabouts,
  ) {
    whereabouts.isShown = this.led !== undefined;
    live.on('lectern', (address: string, ...told: Told) => this.hear(address, ...told));
    live.on('lectern-closed', (_address: string, id: string) => this.hearClosed(id));
    live.on('hand', (_address: string, person: string, connection: string, since: number | bigint) => {
      if (since) this.raised.set(connection, { person, connection, since: Number(since) });
      else this.raised.delete(connection);
      this.tell();
    });
    live.on('lowered', (_address: string, _person: string, _connection: string, whose: string) => {
      if (whose === live.id) this.raise('', false);
    });
    live.on('point', (_address: string, _person: string, connection: string, page: string, places: Uint8Array) =>
      this.pass(connection, page, readPlaces(places)),
    );
    live.onJoined.add((address) => {
      if (this.led && address === notebookOf(this.led)) void this.stand();
      if (address === this.handIn) live.say('Hand', address, true);
    });
    live.onBroken.add(() => {
      this.known.clear();
      this.raised.clear();
      this.tell();
    });
    setInterval(() => this.led && void live.ask('Teach', notebookOf(this.led), this.led.id), betweenStanding);
    // One who looks by themselves is led no more, and is told the way back.
    whereabouts.onStopped = () => {
      this.followedId = '';
      this.tell();
    };
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /** All whose leaders are there, without one's own. */
  readonly all = (): readonly Lectern[] => this.listed;

  /** The lectern that one stands at here. */
  readonly own = (): OwnLectern | undefined => this.led;

  /** The lectern that one follows, also while its leader's connection is away; empty for none. */
  readonly followed = (): string => this.followedId;

  /** Whether it is in a notebook. */
  followsIn(notebook: string): boolean {
    return this.followedId !== '' && this.followedIn === notebook;
  }

  /** Who raises a hand, first who did so first. */
  readonly raisedHands = (): readonly RaisedHand[] => this.hands;

  /** What is shown on a page, by oneself or by whom one follows. */
  shownOn(page: string): { lifted: readonly string[]; spot: Spotlight | undefined } | undefined {
    if (this.led?.page === page) return this.led;
    const shown = this.known.get(this.followedId);
    return shown?.page === page ? shown : undefined;
  }

  readonly isHandUp = (): boolean => this.handIn !== '';

  /** Hears where leaders point, oneself as well. */
  onPoint(listener: PointListener): () => void {
    this.pointListeners.add(listener);
    return () => this.pointListeners.delete(listener);
  }

  /** Stands at a lectern that the server has opened. */
  lead(opened: { id: string; space: string; notebook: string; openedAt: number }, page: string): void {
    this.whereabouts.unfollow();
    this.led = { ...opened, page, lifted: [], spot: undefined, hand: 'pen' };
    void this.stand();
  }

  /** Stands at none any more; the lectern itself is closed by the server. */
  stepDown(): void {
    this.led = undefined;
    this.changed();
  }

  /** Shows another page: what was lifted and lit on the one before is not any more. */
  turn(page: string): void {
    if (!this.led || this.led.page === page) return;
    this.change({ page, lifted: [], spot: undefined });
  }

  lift(curtain: string, isUp: boolean): void {
    const lifted = (this.led?.lifted ?? []).filter((one) => one !== curtain);
    this.change({ lifted: isUp ? [...lifted, curtain] : lifted });
  }

  light(spot: Spotlight | undefined): void {
    this.change({ spot });
  }

  /** What the pen does from now on; without the spotlight nothing is dimmed. */
  take(hand: OwnLectern['hand']): void {
    this.change(hand === 'spotlight' ? { hand } : { hand, spot: undefined });
  }

  point(x: number, y: number): void {
    if (!this.led) return;
    this.pointed.push(Math.round(x), Math.round(y));
    this.pass(this.live.id, this.led.page, [x, y]);
    this.pointSoon();
  }

  /** Follows what is shown from a lectern: its page, view, curtains and light. */
  follow(lectern: Lectern): void {
    this.whereabouts.follow(lectern.connection, notebookOf(lectern));
    this.followedId = lectern.id;
    this.followedIn = lectern.notebook;
    this.tell();
  }

  /** Raises one's hand in a notebook, or takes it down. */
  raise(notebook: string, isUp: boolean): void {
    const address = isUp ? notebook : this.handIn;
    this.handIn = isUp ? notebook : '';
    if (address) this.live.say('Hand', address, isUp);
    this.tell();
  }

  /** Says that a raised hand was seen. */
  lower(hand: RaisedHand): void {
    this.live.say('Lower', hand.connection);
  }

  private change(to: Partial<OwnLectern>): void {
    if (!this.led) return;
    this.led = { ...this.led, ...to };
    this.changed();
    this.showSoon();
  }

  /** With every connection anew. Where the lectern was closed meanwhile, or is another's, one stands at none. */
  private async stand(): Promise<void> {
    const { led } = this;
    if (!led) return;
    this.changed();
    const answer = await this.live.ask('Teach', notebookOf(led), led.id);
    if (answer === 'refused' && this.led?.id === led.id) this.stepDown();
    if (answer === 'done') this.show();
  }

  private show(): void {
    if (!this.led?.page) return;
    const { page, lifted, spot } = this.led;
    const { x, y, radius } = spot ?? { x: 0, y: 0, radius: 0 };
    this.live.say('Show', page, [...lifted], Math.round(x), Math.round(y), Math.round(radius));
    this.whereabouts.showAgain();
  }

  private hear(address: string, ...[leader, connection, id, notebook, page, lifted, x, y, radius, told]: Told): void {
    const before = this.known.get(id);
    if (!notebook) {
      if (before?.connection === connection) this.known.delete(id);
      return this.tell();
    }
    // What is heard late of a connection from before is over.
    const since = Number(told);
    if (before && before.since > since) return;
    // In another window the same person has taken it over.
    if (this.led?.id === id && !this.live.isOwn(connection)) this.stepDown();
    const space = address.slice(0, address.indexOf('/'));
    const isOfLibrary = address.includes('/library/');
    this.known.set(id, {
      id,
      leader,
      connection,
      space,
      notebook,
      since,
      // The library tells of the notebook alone; what the notebook told stays.
      page: isOfLibrary ? (before?.page ?? '') : page,
      lifted: isOfLibrary || isSame(before?.lifted, lifted) ? (before?.lifted ?? []) : lifted,
      spot: isOfLibrary ? before?.spot : radius > 0 ? { x, y, radius } : undefined,
    });
    if (this.followedId === id && this.whereabouts.leader() !== connection) this.follow(this.known.get(id)!);
    else this.tell();
  }

  private hearClosed(id: string): void {
    this.known.delete(id);
    if (this.followedId === id) {
      this.followedId = '';
      this.whereabouts.unfollow();
    }
    if (this.handIn) this.raise('', false);
    if (this.led?.id === id) this.stepDown();
    else this.tell();
  }

  private pass(connection: string, page: string, places: readonly number[]): void {
    for (const listener of this.pointListeners) listener(connection, page, places);
  }

  /** A reload goes on where one stood. */
  private changed(): void {
    this.whereabouts.isShown = this.led !== undefined;
    if (this.led) sessionStorage.setItem(kept, JSON.stringify(this.led));
    else sessionStorage.removeItem(kept);
    this.tell();
  }

  private tell(): void {
    this.listed = [...this.known.values()].filter((one) => one.id !== this.led?.id);
    this.hands = [...this.raised.values()].sort((one, other) => one.since - other.since);
    for (const listener of this.listeners) listener();
  }
}

/** Leader, their connection, the lectern, notebook, page, lifted curtains, the spotlight, and since when the leader stands there on this connection. */
type Told = [string, string, string, string, string, string[], number, number, number, number | bigint];

export const notebookOf = (at: { space: string; notebook: string }): string =>
  addressOf(at.space, 'notebook', at.notebook);

const isSame = (some: readonly string[] | undefined, others: readonly string[]): boolean =>
  some?.length === others.length && some.every((one, i) => one === others[i]);

function readKept(): OwnLectern | undefined {
  const text = sessionStorage.getItem(kept);
  return text ? { ...(JSON.parse(text) as OwnLectern), hand: 'pen' } : undefined;
}
