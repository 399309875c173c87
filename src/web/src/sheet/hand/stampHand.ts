import { t } from '@lingui/core/macro';
import { sentenceOf } from '../../core/runtime';
import { broughtStamp, countStamp } from '../../data/stamps';
import { say } from '../../ui/saying';
import { between, BoxHand } from './boxHand';
import type { Hand, Workplace } from './hand';
import type { Sample } from './penInput';

/** What a stamp is set to. */
export interface StampSettings {
  /** Which one; empty for none yet. */
  stamp: string;
  /** How wide, 0.01 mm; 0 for as it was kept. */
  width: number;
  /** #rrggbb, or empty for its own colours. */
  colour: string;
}

/** What is dragged less far, 0.01 mm, is a press. */
const leastDragged = 300;

/** Lays a stamp down where it is pressed, or as wide as it is dragged. */
export class StampHand implements Hand {
  private readonly box: BoxHand;
  private first: Sample | undefined;
  private last: Sample | undefined;

  constructor(
    private readonly at: Workplace,
    private readonly tool: StampSettings,
  ) {
    this.box = new BoxHand(at, tool.colour || '#1f3d3b', () => {});
  }

  begin(sample: Sample): void {
    this.first = this.last = sample;
    this.box.begin(sample);
  }

  move(samples: Sample[]): void {
    this.last = samples.at(-1)!;
    this.box.move(samples);
  }

  end(): void {
    this.box.cancel();
    const [left, top, right, bottom] = between(this.first!, this.last!);
    const isPress = Math.max(right - left, bottom - top) < leastDragged;
    if (isPress) this.lay(this.first!.x, this.first!.y, this.tool.width);
    else this.lay((left + right) / 2, (top + bottom) / 2, Math.round(right - left));
  }

  cancel(): void {
    this.box.cancel();
  }

  private lay(x: number, y: number, width: number): void {
    const { core, page, layer } = this.at;
    const piece = broughtStamp(this.tool.stamp);
    if (!piece) return say(t`Choose a stamp first.`);
    try {
      const placed = core.StampBridge.Placed(piece.bytes, x, y, width, this.tool.colour.slice(1));
      const all = core.HandBridge.BeginLay(page.handle, placed, 0, 0, layer());
      page.performTogether((handle, now) => core.HandBridge.LayMore(handle, all + 1, now));
    } catch (problem) {
      return say(sentenceOf(problem));
    }
    // What it shows comes along, when it can.
    const shown = core.ThingBridge.AssetsOf(piece.bytes);
    if (shown.length > 0) this.at.events().needs(shown, piece.space);
    countStamp(this.tool.stamp);
    this.at.wrote([x - width / 2, y, x + width / 2, y]);
    this.at.events().used('stamp');
  }
}
