import type { Sample } from './penInput';
import type { Hand, Workplace } from './hand';

/** What is dragged less far, 0.01 mm, is a press. */
const leastDragged = 600;
const frameColour = '#6b6a5e';

/** Says where something is to be typed: where it is pressed, or as wide as it is dragged. */
export class TextHand implements Hand {
  private from: Sample | undefined;
  private to: Sample | undefined;

  constructor(private readonly at: Workplace) {}

  begin(sample: Sample): void {
    this.from = this.to = sample;
    this.at.wet.begin(frameColour, 1, this.at.view());
  }

  move(samples: Sample[]): void {
    this.to = samples.at(-1)!;
    const [from, to] = [this.from!, this.to];
    if (this.isPress) return this.at.wet.outline([], true, 1);
    this.at.wet.outline([from.x, from.y, to.x, from.y, to.x, to.y, from.x, to.y], true, 1.5 / this.at.view().scale);
  }

  end(): void {
    this.at.wet.clear();
    const [from, to] = [this.from!, this.to!];
    if (this.isPress) this.at.events().types({ x: from.x, y: from.y });
    else
      this.at.events().types({
        x: Math.min(from.x, to.x),
        y: Math.min(from.y, to.y),
        width: Math.abs(to.x - from.x),
      });
  }

  cancel(): void {
    this.at.wet.clear();
  }

  private get isPress(): boolean {
    return Math.abs(this.to!.x - this.from!.x) < leastDragged;
  }
}
