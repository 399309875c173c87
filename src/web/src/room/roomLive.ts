import { type HubConnection, HubConnectionState } from '@microsoft/signalr';
import { hubAt } from '../sync/hub';
import type { Spotlight } from '../sync/lecterns';
import { readPlaces } from '../sync/places';

/** What a screen in the room hears. */
export interface RoomListener {
  /** Another page, curtain or light is shown. */
  shown(page: string, lifted: string[], spot: Spotlight | undefined): void;
  /** What the leader sees of the page: the middle and the width, 0.01 mm. */
  view(x: number, y: number, width: number): void;
  point(places: number[]): void;
  wet(person: string, connection: string, piece: Uint8Array): void;
  /** Something on the page is another than before; also after each break. */
  changed(): void;
  closed(): void;
}

const pauses = [300, 1000, 2000, 5000];

/** The live connection of a screen in the room. It comes back by itself; whether the lectern is still open, the next request says. */
export class RoomLive {
  private readonly hub: HubConnection;
  private tries = 0;
  private stopped = false;

  constructor(
    code: string,
    private readonly listener: RoomListener,
  ) {
    this.hub = hubAt(`/live/room?code=${encodeURIComponent(code)}`);
    this.hub.on('lectern', (...told: unknown[]) => {
      const [notebook, page, lifted, x, y, radius] = told.slice(4) as [
        string,
        string,
        string[],
        number,
        number,
        number,
      ];
      // While the leader's connection is away the screen stays as it is.
      if (notebook) listener.shown(page, lifted, radius > 0 ? { x, y, radius } : undefined);
    });
    this.hub.on('view', (_room, _person, _connection, _page, x: number, y: number, width: number) =>
      listener.view(x, y, width),
    );
    this.hub.on('point', (_room, _person, _connection, _page, places: Uint8Array) =>
      listener.point(readPlaces(places)),
    );
    this.hub.on('wet', (_page, person: string, connection: string, piece: Uint8Array) =>
      listener.wet(person, connection, piece),
    );
    this.hub.on('changed', () => listener.changed());
    this.hub.on('lectern-closed', () => listener.closed());
    this.hub.onclose(() => this.connectLater());
    void this.connect();
  }

  stop(): void {
    this.stopped = true;
    void this.hub.stop();
  }

  private async connect(): Promise<void> {
    if (this.stopped || this.hub.state !== HubConnectionState.Disconnected) return;
    try {
      await this.hub.start();
      this.tries = 0;
    } catch {
      this.connectLater();
    }
    this.listener.changed();
  }

  private connectLater(): void {
    if (!this.stopped) setTimeout(() => void this.connect(), pauses[Math.min(this.tries++, pauses.length - 1)]);
  }
}
