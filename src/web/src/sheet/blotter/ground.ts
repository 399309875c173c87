import type { Core } from '../../core/runtime';
import { type Drawing, grows } from '../../model/drawing';
import type { Assets } from '../../sync/assets';
import { reportFault } from '../../sync/faults';
import type { OpenDocument } from '../../sync/openDocument';
import type { DryInk } from '../ink/dryInk';
import { clearPaper, sheetPaperOf } from '../ink/sheetPaper';
import { dimGround, dimmedPaper, isDark, tintOn } from '../ink/tint';
import { fitUnder } from '../ink/underlay';

/** What is under the ink of a page, beyond its own operations. */
export interface Under {
  paper: string;
  space: string;
  notebook: { handle: number; id: string };
  /** The asset of the own paper, and who has it. */
  asset: string | undefined;
  assets: Assets;
}

/** The sheet under the ink: as it is drawn, dimmed at night where the person wants that, and with inks shown so that they can be read on it; what is stored stays. */
export class Ground {
  private drawn: Drawing;
  private readonly ended = new AbortController();

  constructor(
    private readonly core: Core,
    private readonly page: OpenDocument,
    private readonly dry: DryInk,
    private under: Under,
    private readonly wantsDim: () => boolean,
    /** Whether it is seen through, down to the page that it lies over. */
    private readonly isClear: boolean,
  ) {
    this.drawn = this.draw();
  }

  get drawing(): Drawing {
    return this.drawn;
  }

  get paper(): string {
    return this.under.paper;
  }

  /** It lies on another paper. */
  lieOn(under: Under): void {
    this.under = under;
    this.redraw();
    this.retint();
  }

  /** The paper, its dates or its calendar changed, or the ink outgrew the sheet. */
  redraw(): void {
    this.drawn = this.draw();
  }

  /** An endless page gets more sheet when its ink needs it; true when it did. */
  grow(): boolean {
    if (!grows(this.paper)) return false;
    const sheet = this.core.PaperBridge.Sheet(this.paper, this.page.handle);
    if (sheet.every((edge, i) => edge === this.drawn.sheet[i])) return false;
    this.redraw();
    return true;
  }

  /** Shows paper and inks as this light wants them. */
  retint(): void {
    this.dry.setTint(isDark(this.ground) ? (colour) => this.tint(colour) : undefined);
    this.dry.setPaper(this.sheetPaper());
  }

  /** A colour as it is shown here. */
  tint(colour: string): string {
    return tintOn(this.core, this.ground, colour);
  }

  stop(): void {
    this.ended.abort();
  }

  private get isDimmed(): boolean {
    return this.wantsDim() && document.documentElement.dataset.theme === 'quill-night';
  }

  /** What colour the paper is seen in. */
  get ground(): string {
    return this.isDimmed ? dimGround : this.drawn.ground;
  }

  private sheetPaper() {
    const paper = sheetPaperOf(this.drawn);
    if (this.isClear) return clearPaper(paper);
    return this.isDimmed ? dimmedPaper(paper) : paper;
  }

  private draw(): Drawing {
    const { paper, space, notebook, asset, assets } = this.under;
    // Only a sheet that grows asks for the ink.
    const drawing = JSON.parse(
      this.core.PaperBridge.Draw(
        paper,
        grows(paper) ? this.page.handle : 0,
        notebook.handle,
        notebook.id,
        this.page.id,
      ),
    ) as Drawing;
    this.drawn = drawing;
    const sheetPaper = this.sheetPaper();
    this.dry.setPaper(sheetPaper);
    if (asset && !this.isClear) {
      const whole = JSON.parse(this.core.PaperBridge.Read(paper)) as { width: number; height: number };
      const { signal } = this.ended;
      void assets
        .whenHere(space, asset, signal)
        .then((file) => fitUnder(this.core, file, [0, 0, whole.width, whole.height]))
        .then(
          (fitted) => {
            if (fitted && !signal.aborted && this.under.asset === asset)
              this.dry.setPaper({ ...sheetPaper, under: [fitted] });
          },
          (problem: unknown) => {
            if (!signal.aborted) reportFault('What lies under a page could not be had.', problem, this.page.address);
          },
        );
    }
    return drawing;
  }
}
