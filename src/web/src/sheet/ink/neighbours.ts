import type { Core } from '../../core/runtime';
import type { Area, Drawing } from '../../model/drawing';
import type { OpenDocument } from '../../sync/openDocument';
import { onPictures } from './bitmaps';
import { DryInk } from './dryInk';
import { readPacket } from './packet';
import { sheetPaperOf } from './sheetPaper';
import type { View } from './view';

/** How a notebook's pages follow each other, and which come before and after this one. */
export interface NextPages {
  turning: 'sideways' | 'down' | 'seamless';
  before: NextPage | undefined;
  after: NextPage | undefined;
}

export interface NextPage {
  paper: string;
  id: string;
  notebook: { handle: number; id: string };
  /** Opens the page; whoever opened it gives it back. */
  open: () => Promise<OpenDocument>;
  close: () => void;
}

/** The gap between sheets of a seamless notebook, 0.01 mm. */
const gap = 400;

/** In a seamless notebook, the sheets before and after the one that is written on, to be read on without a break. */
export class Neighbours {
  private readonly sheets: Neighbour[];
  /** Behind all that belongs to the sheet itself. */
  private readonly ground = document.createElement('div');

  constructor(
    holder: HTMLElement,
    core: Core,
    private readonly next: NextPages,
  ) {
    holder.prepend(this.ground);
    this.sheets = this.isSeamless
      ? [-1, 1].flatMap((by) =>
          ((page) => (page ? [new Neighbour(this.ground, core, page, by)] : []))(by < 0 ? next.before : next.after),
        )
      : [];
  }

  get isSeamless(): boolean {
    return this.next.turning === 'seamless';
  }

  get isSideways(): boolean {
    return this.next.turning === 'sideways';
  }

  setView(view: View, sheet: Area): void {
    for (const one of this.sheets) one.setView(one.viewBeside(view, sheet));
  }

  resize(width: number, height: number): void {
    for (const one of this.sheets) one.resize(width, height);
  }

  /** Which neighbour has come to lie over the middle of the screen, and the view that keeps it where it is. */
  passed(view: View, sheet: Area, height: number): { by: number; view: View } | undefined {
    for (const one of this.sheets) {
      const own = one.viewBeside(view, sheet);
      const [top, bottom] = [one.sheet[1] * own.scale + own.y, one.sheet[3] * own.scale + own.y];
      if (top < height / 2 && bottom > height / 2) return { by: one.by, view: own };
    }
    return undefined;
  }

  stop(): void {
    for (const one of this.sheets) one.stop();
    this.ground.remove();
  }
}

class Neighbour {
  readonly sheet: Area;
  private readonly dry: DryInk;
  private stopped = false;
  private readonly stopAwaitingPictures: () => void;

  constructor(
    holder: HTMLElement,
    core: Core,
    private readonly page: NextPage,
    readonly by: number,
  ) {
    this.dry = new DryInk(holder);
    this.stopAwaitingPictures = onPictures((asset) => this.dry.paintAgain(asset));
    const drawing = JSON.parse(
      core.PaperBridge.Draw(page.paper, 0, page.notebook.handle, page.notebook.id, page.id),
    ) as Drawing;
    this.sheet = drawing.sheet;
    this.dry.setPaper(sheetPaperOf(drawing));
    void page.open().then((document) => {
      if (this.stopped) return;
      const surface = core.PageBridge.OpenSurface(document.handle, false);
      this.dry.show(readPacket(core.PageBridge.TakeChanged(document.handle, surface, 100_000)));
      core.PageBridge.CloseSurface(document.handle, surface);
    });
  }

  viewBeside(view: View, sheet: Area): View {
    const middle = ((sheet[0] + sheet[2] - this.sheet[0] - this.sheet[2]) / 2) * view.scale;
    const edge =
      this.by > 0 ? (sheet[3] + gap - this.sheet[1]) * view.scale : (sheet[1] - gap - this.sheet[3]) * view.scale;
    return { scale: view.scale, x: view.x + middle, y: view.y + edge };
  }

  setView(view: View): void {
    this.dry.setView(view);
  }

  resize(width: number, height: number): void {
    this.dry.resize(width, height);
  }

  stop(): void {
    this.stopped = true;
    this.stopAwaitingPictures();
    this.page.close();
  }
}
