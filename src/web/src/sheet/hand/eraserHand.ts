import { t } from '@lingui/core/macro';
import { readPacket } from '../ink/packet';
import type { Sample } from './penInput';
import { boxOf, type Hand, type Workplace } from './hand';
import { allKinds, firstLayer, itemKinds } from './things';

/** What an eraser is set to. */
export interface EraserSettings {
  /** Whole things, what is touched, or all inside a loop. */
  way: 'touched' | 'whole' | 'loop';
  /** Diameter, 0.01 mm. */
  size: number;
  onlyHighlighter: boolean;
  onlyLayer: boolean;
  /** Whether the pen is in the hand again after one pass. */
  back: boolean;
}

const loopColour = '#b4533c';

/** Rubbing out: whole things, what is touched, or all inside a loop. */
export class EraserHand implements Hand {
  private loop: number[] = [];

  constructor(
    private readonly at: Workplace,
    private readonly eraser: EraserSettings,
  ) {}

  begin(sample: Sample): void {
    const { core, page, wet, view } = this.at;
    if (this.eraser.way === 'loop') {
      this.loop = [];
      wet.begin(loopColour, 1, view());
    } else
      core.PageBridge.BeginErase(
        page.handle,
        this.eraser.size / 2,
        this.eraser.way === 'whole',
        this.kinds,
        this.layer,
      );
    this.move([sample]);
  }

  move(samples: Sample[]): void {
    const { core, page, dry, wet, view } = this.at;
    if (this.eraser.way === 'loop') {
      for (const { x, y } of samples) this.loop.push(x, y);
      wet.outline(this.loop, false, 1.5 / view().scale);
      return;
    }
    dry.show(
      readPacket(core.PageBridge.EraseAlong(page.handle, new Float64Array(samples.flatMap(({ x, y }) => [x, y])))),
    );
    this.at.tellCount();
  }

  end(): void {
    const { core, page, wet } = this.at;
    wet.clear();
    if (this.eraser.way !== 'loop') page.perform((handle, now) => core.PageBridge.EndErase(handle, now));
    else if (this.loop.length >= 6) {
      const items = core.HandBridge.Select(page.handle, new Float64Array(this.loop), 0.5, this.kinds, this.layer);
      if (items.length > 0) page.perform((handle, now) => core.HandBridge.Remove(handle, items, now));
      else {
        const [left, top, right, bottom] = boxOf(this.loop);
        if (Math.hypot(right - left, bottom - top) > 300)
          this.at.events().say(t`There was nothing inside the loop that can be erased.`);
      }
    }
    this.at.events().used('eraser');
  }

  cancel(): void {
    if (this.eraser.way !== 'loop')
      this.at.page.perform((handle, now) => this.at.core.PageBridge.EndErase(handle, now));
    this.at.wet.clear();
  }

  private get kinds(): number {
    return this.eraser.onlyHighlighter ? itemKinds.highlighter : allKinds;
  }

  private get layer(): string {
    return this.eraser.onlyLayer ? this.at.layer() || firstLayer : '';
  }
}
