/** Numbers that come out the same for the same seed (Mulberry32, T. Ettinger). */
export class Chance {
  constructor(private state: number) {}

  /** From 0 to below 1. */
  next(): number {
    this.state = (this.state + 0x6d2b79f5) | 0;
    let mixed = Math.imul(this.state ^ (this.state >>> 15), 1 | this.state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296;
  }

  below(most: number): number {
    return Math.floor(this.next() * most);
  }

  of<T>(choices: readonly T[]): T | undefined {
    return choices[this.below(choices.length)];
  }

  /** A version 4 UUID. */
  id(): string {
    const digits = Array.from({ length: 32 }, () => this.below(16).toString(16));
    digits[12] = '4';
    digits[16] = '8';
    const text = digits.join('');
    return [text.slice(0, 8), text.slice(8, 12), text.slice(12, 16), text.slice(16, 20), text.slice(20)].join('-');
  }
}
