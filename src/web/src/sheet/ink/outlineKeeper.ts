import type { OpenDocument } from '../../sync/openDocument';

/** The outlines of a page with at least so many strokes are kept on the device, unless they are too large, bytes. */
const fullPage = 400;
const mostKept = 12_000_000;
/** They are kept when the page has lain still for so long, ms, and when it is left. */
const keepAfter = 1_500;

/** Collects the packets that a page was painted from, and keeps them on the device, to paint it from without Core's help when it is opened again. */
export class OutlineKeeper {
  private packets: Uint8Array[] = [];
  /** How many of the packets are on the device. */
  private kept = 0;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private stopped = false;

  constructor(
    private readonly page: OpenDocument,
    /** How many strokes are painted; undefined while some are on their way. */
    private readonly strokes: () => number | undefined,
  ) {
    document.addEventListener('visibilitychange', this.keep);
  }

  add(packet: Uint8Array): void {
    this.packets.push(packet);
  }

  /** What was added came from the device. */
  isKept(): void {
    this.kept = this.packets.length;
  }

  /** The page is painted anew, from nothing. */
  clear(): void {
    this.packets = [];
    this.kept = 0;
  }

  /** The page shows all there is. Writing adds to what is kept when it is left; a page that was never kept is kept once it lies still. */
  lie(): void {
    if (this.kept > 0 || this.stopped) return;
    clearTimeout(this.timer);
    this.timer = setTimeout(this.keep, keepAfter);
  }

  stop(): void {
    void this.keep();
    this.stopped = true;
    clearTimeout(this.timer);
    document.removeEventListener('visibilitychange', this.keep);
  }

  /** What the store does not take yet, since something of the page is on its way to the server still, is offered again later. */
  private readonly keep = async (): Promise<void> => {
    if (!this.page.isPlain) return;
    const { packets } = this;
    const { length } = packets;
    const bytes = packets.reduce((sum, packet) => sum + packet.length, 0);
    if (length === this.kept || (this.strokes() ?? 0) < fullPage || bytes > mostKept) return;
    if (!(await this.page.keepOutlines(packets.slice()))) this.lie();
    else if (this.packets === packets) this.kept = length;
  };
}
