import type { Core } from '../../core/runtime';
import { bringFonts, onFonts } from '../../letters/fonts';
import type { OpenDocument } from '../../sync/openDocument';
import { onPictures } from '../ink/bitmaps';
import type { DryInk } from '../ink/dryInk';
import { OutlineKeeper } from '../ink/outlineKeeper';
import { type InkItem, LostOutlineError, readPacket } from '../ink/packet';
import { afterFrame, soon } from '../ink/soon';

const itemsASlice = 600;
/** Fewer things than this are done and painted at once. */
const fewForeseen = 400;
const sliceMilliseconds = 30;

/**
 * Keeps the ink that is shown as Core says that the page is: takes what has changed, in slices so that a full page does not hold up the pen, and shows ahead of
 * Core what is about to be done to very much.
 */
export class ShownInk {
  private readonly keeper: OutlineKeeper;
  private surface: number | undefined;
  /** Core's handle of what the surface shows. */
  private shownHandle = 0;
  private taking = false;
  /** What is taken is seen already. */
  private foreseen = false;
  private readonly awaiting: (() => void)[] = [];
  private stopped = false;
  /** What was kept to be painted at once cannot be: all is asked for. */
  private isLost = false;
  private readonly stopFollowing: () => void;
  private readonly stopAwaitingFonts: () => void;
  private readonly stopAwaitingPictures: () => void;

  constructor(
    private readonly holder: HTMLElement,
    private readonly core: Core,
    private readonly page: OpenDocument,
    private readonly dry: DryInk,
    /** Whether what it was painted from is kept on the device. */
    keeps: boolean,
    /** All that has changed is painted. */
    private readonly changed: () => void,
  ) {
    dry.onPainting = () => this.tellPainting();
    this.stopFollowing = page.subscribe(() => this.takeChanged());
    this.stopAwaitingFonts = onFonts(() => this.setAnew());
    this.stopAwaitingPictures = onPictures((asset) => dry.paintAgain(asset));
    if (page.isQuicklySettled) page.settle();
    const { outlines } = page;
    this.keeper = new OutlineKeeper(page, () => (this.taking || !keeps ? undefined : dry.strokeCount));
    for (const packet of outlines ?? []) this.paint(packet);
    this.keeper.isKept();
    page.afterSettling(() => this.open(outlines !== undefined && !this.isLost));
    this.takeChanged();
    if (page.isHeld) afterFrame(() => page.settle());
  }

  stop(): void {
    this.stopped = true;
    this.keeper.stop();
    if (this.surface !== undefined) this.core.PageBridge.CloseSurface(this.page.handle, this.surface);
    this.stopFollowing();
    this.stopAwaitingFonts();
    this.stopAwaitingPictures();
  }

  /**
   * Shows what is about to be done to very many things before the rules have done it. What they say is taken once it is painted, and where they
   * refuse, all is asked for again.
   */
  foresee(ids: readonly string[], how: (item: InkItem) => InkItem, perform: () => void): void {
    if (ids.length < fewForeseen || this.taking) return perform();
    this.taking = this.foreseen = true;
    this.dry.change(new Set(ids), how);
    try {
      perform();
    } catch (error) {
      this.taking = this.foreseen = false;
      this.startAnew();
      throw error;
    }
    this.dry.whenPainted(() =>
      soon(() => {
        this.taking = false;
        if (!this.stopped) this.takeChanged();
        this.whenSeen(() => (this.foreseen = false));
      }),
    );
  }

  /** Something may soon be done to these. */
  anticipate(ids: readonly string[]): void {
    this.dry.anticipate(ids.length < fewForeseen ? undefined : new Set(ids));
  }

  /** Once all that is known to have changed is seen. */
  whenSeen(then: () => void): void {
    this.whenTaken(() => this.dry.whenPainted(then));
  }

  /** Once all that is known to have changed is taken from Core. */
  whenTaken(then: () => void): void {
    if (this.taking) this.awaiting.push(then);
    else then();
  }

  /** Core tells from now on what changes on the page; all there is on it, unless it is painted already. */
  private open(painted: boolean): void {
    if (this.stopped) return;
    this.shownHandle = this.page.handle;
    this.surface = this.core.PageBridge.OpenSurface(this.shownHandle, painted);
  }

  /** There are more fonts: what is typed is handed out anew. */
  private setAnew(): void {
    if (this.stopped || this.page.isHeld || this.surface === undefined) return;
    this.core.LetterBridge.SetAnew(this.page.handle);
    this.takeChanged();
  }

  private takeChanged(): void {
    if (this.taking || this.page.isHeld) return;
    if (this.shownHandle !== this.page.handle) {
      this.dry.clear();
      this.keeper.clear();
      this.open(false);
    }
    const until = performance.now() + sliceMilliseconds;
    this.dry.hold(true);
    for (;;) {
      if (this.paint(this.core.PageBridge.TakeChanged(this.page.handle, this.surface!, itemsASlice)) < itemsASlice)
        break;
      if (performance.now() > until) {
        this.taking = true;
        this.tellPainting();
        soon(() => {
          this.taking = false;
          this.tellPainting();
          if (!this.stopped) this.takeChanged();
        });
        return;
      }
    }
    this.dry.hold(false);
    this.changed();
    for (const then of this.awaiting.splice(0)) then();
    this.keeper.lie();
  }

  /** Paints a packet and keeps it, to paint the page from without Core's help when it is opened again. Returns how many items it held. */
  private paint(packet: Uint8Array): number {
    const items = this.read(packet);
    if (!items) return itemsASlice;
    this.dry.show(items);
    if (items.some(({ texts }) => texts.length > 0)) bringFonts(this.core);
    if (items.length > 0) this.keeper.add(packet);
    return items.length;
  }

  /** Reads a packet; where it counts on an outline that is not there, the whole page is asked for again, and nothing is missing. */
  private read(packet: Uint8Array): InkItem[] | undefined {
    try {
      return readPacket(packet, this.dry.find);
    } catch (error) {
      if (!(error instanceof LostOutlineError)) throw error;
      this.isLost = true;
      if (this.surface === undefined) return [];
      this.startAnew();
      return undefined;
    }
  }

  /** Asks for all that is on the page. */
  private startAnew(): void {
    this.dry.clear();
    this.keeper.clear();
    if (this.surface === undefined) return;
    this.core.PageBridge.CloseSurface(this.shownHandle, this.surface);
    this.open(false);
    this.takeChanged();
  }

  /** Whether all that is on the page is seen as it now is: “sharp” where only its sharpness is owed. */
  private tellPainting(): void {
    if ((this.taking && !this.foreseen) || this.dry.isPainting)
      this.holder.dataset.painting = this.dry.isSharpening && (!this.taking || this.foreseen) ? 'sharp' : '1';
    else delete this.holder.dataset.painting;
  }
}
