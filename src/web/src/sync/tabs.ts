/** What a tab tells the others of the same person about the store that they share. */
export type TabMessage =
  /** Operations were put into the outbox. */
  | { what: 'made'; operations: { document: string; bytes: Uint8Array }[] }
  /** The server has stored some, under these numbers. */
  | { what: 'stored'; document: string; operations: { sequence: number; bytes: Uint8Array }[] }
  /** What the store holds of these documents is not what was applied: it must be read anew. */
  | { what: 'anew'; documents: string[] }
  /** The number that operations were signed with is another's. */
  | { what: 'renumbered'; old: string }
  /** The devices' clock was ahead by this, ms. */
  | { what: 'clock'; offset: number }
  /** How much waits, or was refused, has changed. */
  | { what: 'counted' }
  /** The person has left this device. */
  | { what: 'left' };

/** This tab, told from the others. */
const own = crypto.randomUUID();

/** The other tabs of the same person in this browser. */
export class Tabs {
  onMessage: (message: TabMessage) => void = () => {};

  private readonly channel: BroadcastChannel;

  constructor(person: string) {
    this.channel = new BroadcastChannel(`quill-tabs-${person}`);
    this.channel.onmessage = ({ data }: MessageEvent<{ from: string; message: TabMessage }>) => {
      if (data.from !== own) this.onMessage(data.message);
    };
  }

  tell(message: TabMessage): void {
    this.channel.postMessage({ from: own, message });
  }

  stop(): void {
    this.onMessage = () => {};
    this.channel.close();
  }
}
