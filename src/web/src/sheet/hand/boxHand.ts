import type { Area } from '../../model/drawing';
import type { Sample } from './penInput';
import type { Hand, Workplace } from './hand';

const leastSide = 400;

/** Drags out a rectangle for something that is then laid there, such as a curtain. */
export class BoxHand implements Hand {
  private from: Sample | undefined;
  private to: Sample | undefined;

  constructor(
    private readonly at: Workplace,
    private readonly colour: string,
    private readonly done: (area: Area) => void,
    /** What is not dragged as far either way is a press. */
    private readonly least = leastSide,
    private readonly pressed: (at: Sample) => void = () => {},
  ) {}

  begin(sample: Sample): void {
    this.from = sample;
    this.at.wet.begin(this.colour, 1, this.at.view());
    this.move([sample]);
  }

  move(samples: Sample[]): void {
    this.to = samples.at(-1)!;
    const [left, top, right, bottom] = this.area();
    this.at.wet.outline([left, top, right, top, right, bottom, left, bottom], true, 1.5 / this.at.view().scale);
  }

  end(): void {
    this.at.wet.clear();
    const area = this.area();
    if (area[2] - area[0] >= this.least && area[3] - area[1] >= this.least) this.done(area);
    else this.pressed(this.from!);
  }

  cancel(): void {
    this.at.wet.clear();
  }

  private area(): Area {
    return between(this.from!, this.to!);
  }
}

/** The area with these two as corners. */
export function between(a: Sample, b: Sample): Area {
  return [Math.min(a.x, b.x), Math.min(a.y, b.y), Math.max(a.x, b.x), Math.max(a.y, b.y)];
}
