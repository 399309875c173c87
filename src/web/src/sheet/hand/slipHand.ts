import { say } from '../../ui/saying';
import type { Area } from '../../model/drawing';
import { sentenceOf } from '../../core/runtime';
import { between, BoxHand } from './boxHand';
import type { Hand, Workplace } from './hand';
import type { Sample } from './penInput';

/** What is dragged less far, 0.01 mm, is a press, and lays down a slip of this size. */
const leastDragged = 800;
const usual = { width: 7000, height: 5000 };

/** Lays a slip down: where it is pressed, or as large as it is dragged. */
export class SlipHand implements Hand {
  private readonly box: BoxHand;
  private first: Sample | undefined;
  private last: Sample | undefined;

  constructor(
    private readonly at: Workplace,
    /** rrggbbaa. */
    private readonly colour: string,
  ) {
    this.box = new BoxHand(at, `#${colour}`, () => {});
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
    const area = between(this.first!, this.last!);
    const isPress = area[2] - area[0] < leastDragged || area[3] - area[1] < leastDragged;
    this.lay(isPress ? this.around(this.first!) : area);
  }

  cancel(): void {
    this.box.cancel();
  }

  /** A slip of the usual size around a place, on the sheet as far as that reaches. */
  private around({ x, y }: Sample): Area {
    const [left, top, right, bottom] = this.at.sheet();
    const at = {
      x: Math.max(left, Math.min(x - usual.width / 2, right - usual.width)),
      y: Math.max(top, Math.min(y - usual.height / 2, bottom - usual.height)),
    };
    return [at.x, at.y, at.x + usual.width, at.y + usual.height];
  }

  private lay(area: Area): void {
    const { core, page, layer } = this.at;
    const [left, top, right, bottom] = area.map(Math.round) as [number, number, number, number];
    try {
      page.performTogether((handle, now) =>
        core.ThingBridge.AddSlip(handle, left, top, right - left, bottom - top, this.colour, layer(), now),
      );
    } catch (problem) {
      say(sentenceOf(problem));
      return;
    }
    this.at.wrote(area);
    this.at.events().used('slip');
    this.at.events().taken({ items: core.ThingBridge.Made(), area });
  }
}
