import { identity } from '../ink/floatInk';
import type { InkItem } from '../ink/packet';
import type { Sample } from './penInput';
import type { Hand, Workplace } from './hand';

const lineColour = '#b4533c';

/** Make room: a line dragged down, or to the right, takes all beyond it along; drawn back it takes away empty space. */
export class RoomHand implements Hand {
  private line = 0;
  private by = 0;
  private mostBack = 0;
  private items: InkItem[] = [];

  constructor(
    private readonly at: Workplace,
    private readonly sideways: boolean,
    /** What would leave the sheet goes to the next page, in one step with making the room. */
    private readonly toNext: boolean,
  ) {}

  begin(sample: Sample): void {
    const { core, page, wet, view, dry } = this.at;
    this.line = this.sideways ? sample.x : sample.y;
    this.by = 0;
    this.mostBack = core.HandBridge.BeginRoom(page.handle, this.line, this.sideways);
    const ids = core.HandBridge.RoomItems();
    this.items = dry.itemsOf(ids);
    wet.begin(lineColour, 1, view());
    this.at.lift(ids, [{ items: this.items, matrix: identity }]);
    this.draw();
  }

  move(samples: Sample[]): void {
    const last = samples.at(-1)!;
    this.by = Math.max((this.sideways ? last.x : last.y) - this.line, -this.mostBack);
    this.at.float.show([
      { items: this.items, matrix: [1, 0, 0, 1, this.sideways ? this.by : 0, this.sideways ? 0 : this.by] },
    ]);
    this.draw();
  }

  end(): void {
    const { core, page, sheet } = this.at;
    this.at.wet.clear();
    const end = this.sideways ? sheet()[2] : sheet()[3];
    const leaving = this.toNext && !this.sideways && this.by > 0 ? core.HandBridge.RoomLeaving(this.by, end) : [];
    if (leaving.length === 0 || !this.at.events().carried(leaving, end, this.by))
      page.perform((handle, now) => core.HandBridge.EndRoom(handle, this.by, now));
    this.at.putDown();
  }

  cancel(): void {
    this.at.wet.clear();
    this.at.core.HandBridge.EndRoom(this.at.page.handle, 0, Date.now());
    this.at.putDown();
  }

  private draw(): void {
    const [left, top, right, bottom] = this.at.sheet();
    const now = this.line + this.by;
    const width = 2 / this.at.view().scale;
    this.at.wet.outline(this.sideways ? [now, top, now, bottom] : [left, now, right, now], false, width);
  }
}
