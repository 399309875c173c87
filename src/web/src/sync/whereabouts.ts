import type { Live } from './live';
import { paced } from './paced';

/** Where somebody looks, in one of their windows. */
export interface Standing {
  person: string;
  connection: string;
  notebook: string;
  /** Known where one follows the notebook oneself, else empty. */
  page: string;
}

/** What somebody sees of a page: the middle and the width, 0.01 mm. */
export interface Seen {
  page: string;
  x: number;
  y: number;
  width: number;
}

/** A view is told no more often than this, ms. */
const betweenViews = 50;

/** Who looks at which page at this moment, and following what somebody sees. Nothing of it is kept: it ends with the connection. */
export class Whereabouts {
  private readonly standings = new Map<string, Standing>();
  /** The same as one list, made anew with every change. */
  private listed: readonly Standing[] = [];
  private own: { notebook: string; page: string } | undefined;
  private readonly followers = new Set<string>();
  private led: { connection: string; notebook: string } | undefined;
  private seen: Seen | undefined;
  private waitingView: Seen | undefined;
  private readonly showSoon = paced(betweenViews, () => this.tellView());
  private lastSeen: Seen | undefined;
  /** The page on which one was last together with whom one follows. */
  arrivedAt = '';
  /** What is seen here goes to a lectern's room as well, whether or not anybody follows. */
  isShown = false;
  /** The person follows no more, by their own doing. */
  onStopped: (() => void) | undefined;
  private readonly listeners = new Set<() => void>();

  constructor(private readonly live: Live) {
    live.onWhere = (person, connection, notebook, page) => this.hear(person, connection, notebook, page);
    live.onFollowed = (connection, leader, on) => this.hearFollowed(connection, leader, on);
    live.onView = (connection, seen) => {
      if (connection !== this.led?.connection) return;
      this.seen = seen;
      this.tell();
    };
    live.onJoined.add((address) => {
      if (address === this.own?.notebook) this.say();
      if (address === this.led?.notebook) this.live.say('Follow', address, this.led.connection, true);
    });
    live.onBroken.add(() => {
      this.standings.clear();
      this.followers.clear();
      this.tell();
    });
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /** All who are known to look at something, without oneself in this window. */
  readonly all = (): readonly Standing[] => this.listed;

  /** Whom one follows; undefined for nobody. */
  readonly leader = (): string | undefined => this.led?.connection;

  /** What whom one follows sees. */
  readonly leaderSees = (): Seen | undefined => this.seen;

  /** How many follow what is seen here. */
  readonly followedBy = (): number => this.followers.size;

  /**
   * Says where one looks now; nothing when one looks at no page.
   * @param notebook The notebook's address.
   */
  stand(notebook: string, page: string): void {
    if (this.own?.notebook === notebook && this.own.page === page) return;
    this.own = page ? { notebook, page } : undefined;
    // Whoever turns on from there at once, before its sheet is open, goes by themselves.
    if (page && this.seen?.page === page) this.arrivedAt = page;
    this.lastSeen = undefined;
    this.say();
  }

  /**
   * Follows what somebody sees.
   * @param notebook The notebook's address in which both are.
   */
  follow(connection: string, notebook: string): void {
    this.letGo();
    this.arrivedAt = '';
    this.led = { connection, notebook };
    this.live.say('Follow', notebook, connection, true);
    this.tell();
  }

  unfollow(): void {
    this.letGo();
    this.onStopped?.();
  }

  private letGo(): void {
    if (!this.led) return;
    this.live.say('Follow', this.led.notebook, this.led.connection, false);
    this.led = undefined;
    this.seen = undefined;
    this.tell();
  }

  /** Says what is seen here, if anybody follows. */
  show(seen: Seen): void {
    this.waitingView = seen;
    if (this.followers.size === 0 && !this.isShown) return;
    this.showSoon();
  }

  private tellView(): void {
    const now = this.waitingView;
    if (!now || !this.own) return;
    const before = this.lastSeen;
    if (before && before.page === now.page && before.x === now.x && before.y === now.y && before.width === now.width)
      return;
    this.lastSeen = now;
    this.live.say('View', this.own.notebook, now.page, Math.round(now.x), Math.round(now.y), Math.round(now.width));
  }

  /** The same once more, for who could not be told before. */
  showAgain(): void {
    this.lastSeen = undefined;
    if (this.waitingView) this.show(this.waitingView);
  }

  private say(): void {
    this.live.say('Stand', this.own?.notebook ?? '', this.own?.page ?? '');
  }

  private hear(person: string, connection: string, notebook: string, page: string): void {
    if (!notebook) {
      this.standings.delete(connection);
      this.followers.delete(connection);
      if (this.led?.connection === connection) this.letGo();
    } else {
      const known = this.standings.get(connection);
      // The library tells of the notebook alone; what the notebook told of the page stays.
      this.standings.set(connection, {
        person,
        connection,
        notebook,
        page: page || (known?.notebook === notebook ? known.page : ''),
      });
    }
    this.tell();
  }

  private hearFollowed(connection: string, leader: string, on: boolean): void {
    if (leader !== this.live.id) return;
    if (on) this.followers.add(connection);
    else this.followers.delete(connection);
    // Who begins to follow is told where one looks, whether or not it was told before.
    if (on) this.showAgain();
    this.tell();
  }

  private tell(): void {
    this.listed = [...this.standings.values()];
    for (const listener of this.listeners) listener();
  }
}
