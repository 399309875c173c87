import type { Sample } from './penInput';
import type { Hand } from './hand';

/** A tool that acts where it is pressed down: marks, fills, picking a colour. */
export class PressHand implements Hand {
  private at: Sample | undefined;

  constructor(private readonly act: (x: number, y: number) => void) {}

  begin(sample: Sample): void {
    this.at = sample;
  }

  move(): void {}

  end(): void {
    if (this.at) this.act(this.at.x, this.at.y);
  }

  cancel(): void {}
}
