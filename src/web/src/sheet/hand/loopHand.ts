import type { Area } from '../../model/drawing';
import type { Sample } from './penInput';
import { boxOf, type Hand, type Workplace } from './hand';
import { firstLayer } from './things';

/** What a loop is set to. */
export interface LoopSettings {
  box: boolean;
  /** How much of a thing must lie inside, 0 to 1. */
  share: number;
  /** Which kinds it takes. */
  takes: number;
  onlyLayer: boolean;
}

const loopColour = '#4f7388';
/** A box smaller than this, 0.01 mm, is a slip. */
const leastTaken = 150;
/** A press is so small, pixels. */
const pressWithin = 6;
const pressReach = 14;

/** Selecting: a loop drawn round, a box dragged, or a press on a thing, which adds it to what was taken or takes it out. */
export class LoopHand implements Hand {
  private points: number[] = [];

  constructor(
    private readonly at: Workplace,
    private readonly tool: LoopSettings,
  ) {}

  begin(sample: Sample): void {
    this.points = [];
    this.at.wet.begin(loopColour, 1, this.at.view());
    this.move([sample]);
  }

  move(samples: Sample[]): void {
    const last = samples.at(-1)!;
    if (this.tool.box) {
      const [x = last.x, y = last.y] = this.points;
      this.points = [x, y, last.x, y, last.x, last.y, x, last.y];
    } else for (const { x, y } of samples) this.points.push(x, y);
    this.at.wet.outline(this.points, this.tool.box, 1.5 / this.at.view().scale);
  }

  end(): void {
    const { core, page, wet, view } = this.at;
    wet.clear();
    const round = boxOf(this.points);
    const size = Math.max(round[2] - round[0], round[3] - round[1]) * view().scale;
    if (size < pressWithin) return this.press(this.points[0]!, this.points[1]!);
    if (this.points.length < 6) return;
    const items = core.HandBridge.Select(
      page.handle,
      new Float64Array(this.points),
      this.tool.share,
      this.tool.takes,
      this.layer,
    );
    if (items.length > 0) this.at.events().taken({ items, area: this.around(items) });
    else if (round[2] - round[0] > leastTaken && round[3] - round[1] > leastTaken)
      this.at.events().taken({ items: [], area: round });
  }

  cancel(): void {
    this.at.wet.clear();
  }

  /** A short press on a thing adds it or takes it out; on bare paper it lets go of all. */
  press(x: number, y: number): void {
    const { core, page, view } = this.at;
    const hit = core.HandBridge.At(page.handle, x, y, pressReach / view().scale, this.tool.takes, this.layer);
    if (hit.length === 0) return this.at.events().taken(undefined);
    const held = new Set(this.at.taken());
    const out = hit.every((item) => held.has(item));
    for (const item of hit)
      if (out) held.delete(item);
      else held.add(item);
    const items = [...held];
    this.at.events().taken(items.length > 0 ? { items, area: this.around(items) } : undefined);
  }

  private around(items: string[]): Area {
    return this.at.core.HandBridge.BoundsOf(this.at.page.handle, items) as unknown as Area;
  }

  private get layer(): string {
    return this.tool.onlyLayer ? this.at.layer() || firstLayer : '';
  }
}
