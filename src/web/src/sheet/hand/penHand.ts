import type { StrokeAhead } from '../../sync/ahead';
import { encodePiece } from '../ink/othersInk';
import { readOutline } from '../ink/packet';
import type { Sample } from './penInput';
import { type Pen, penNumbers, rgbaOf } from '../../model/pens';
import { boxOf, type Hand, type Workplace } from './hand';
import type { Guide } from './things';
import { joinPrintedNumber } from '../../model/habits';

const pieceEvery = 25;
const mostSamples = 40_000;
/** A pen is so wide at most, 0.01 mm. */
const mostWidth = 2_000;
/** In place of a size: the pen was lifted without a rest. */
const lifted = -2;
/** So far a pen may wander and still rest, 0.01 mm at true size. */
const restWithin = 60;
/** So near its beginning lies to a ruler or compass, a line keeps to it, pixels. */
const guideReach = 26;

let strokeNumber = 0;

/** Writing: ink as it is written, steadied, kept to a ruler, tidied when the pen rests, or scratching out what lies under it. */
export class PenHand implements Hand {
  private stroke = 0;
  private number = 0;
  private startedAt = 0;
  private count = 0;
  private sent = 0;
  private sentAt = 0;
  private points: number[] = [];
  private edge: Guide | undefined;
  private first: Sample | undefined;
  private rest: { x: number; y: number } = { x: 0, y: 0 };
  private timer: ReturnType<typeof setTimeout> | undefined;
  private ahead: StrokeAhead | undefined;
  private tidied: { shape: string; replaces: string[] } | undefined;

  constructor(
    private readonly at: Workplace,
    private readonly pen: Pen,
  ) {}

  begin(sample: Sample): void {
    const guide = this.at.guide();
    if (guide) {
      const { round, x, y, angle, size } = guide;
      const reach = guideReach / this.at.view().scale;
      const [left, top, keeps] = this.at.core.ShapeBridge.EdgeAt(round, x, y, angle, size, sample.x, sample.y, reach);
      // The edge it begins at holds it to its end.
      if (keeps) this.edge = { ...guide, x: left!, y: top! };
    }
    this.first = sample;
    this.start();
    this.move([sample]);
  }

  move(samples: Sample[]): void {
    if (this.count > mostSamples) {
      // A line drawn for minutes goes on as a second stroke, since one stroke has only so many samples.
      this.end();
      this.start();
    }
    if (this.pen.straight && this.pen.kind === 'highlighter') this.straightTo(samples.at(-1)!);
    else this.add(samples);
    this.restSoon(samples.at(-1)!);
    if (performance.now() - this.sentAt >= pieceEvery) this.sendPiece(false);
  }

  end(): void {
    clearTimeout(this.timer);
    const { core, page, wet } = this.at;
    this.layOnPrint();
    core.PenBridge.End(this.stroke);
    this.sendPiece(false);
    // A head that is drawn to a shaft which came out true needs no rest of its own.
    const tidied = this.tidied ?? (this.mayTidy() ? this.tidiedBy(lifted) : undefined);
    if (tidied) {
      void page.performAll((handle, now) =>
        core.ShapeBridge.AddTidied(
          this.stroke,
          handle,
          tidied.shape,
          penNumbers(this.pen),
          0,
          tidied.replaces,
          this.at.layer(),
          this.startedAt,
          now,
        ),
      );
    } else if (!this.scratched())
      page.perform((handle, now) => core.PenBridge.Keep(this.stroke, handle, this.at.layer(), this.startedAt, now));
    // From here on it is an operation, which is written ahead itself.
    this.ahead?.done();
    wet.clear();
    this.sendPiece(true);
    if (this.points.length > 0) this.at.wrote(boxOf(this.points));
    this.tidied = undefined;
  }

  cancel(): void {
    clearTimeout(this.timer);
    this.at.core.PenBridge.Drop(this.stroke);
    this.ahead?.done();
    this.at.wet.clear();
    this.sendPiece(true);
    this.tidied = undefined;
  }

  private start(): void {
    const { core, page, wet, view } = this.at;
    const [pen, stabilising] = [penNumbers(this.pen), this.edge ? 0 : this.pen.stabilising];
    this.stroke = core.PenBridge.Begin(pen, stabilising);
    this.number = ++strokeNumber;
    this.startedAt = Date.now();
    this.ahead = page.strokeAhead({ pen, stabilising, layer: this.at.layer(), startedAt: this.startedAt });
    [this.count, this.sent, this.points] = [0, 0, []];
    wet.begin(this.pen.colour, (rgbaOf(this.pen) % 256) / 255, view());
  }

  private add(samples: readonly Sample[]): void {
    const flat = new Int32Array(samples.length * 6);
    samples.forEach((sample, i) => {
      const { x, y } = this.kept(this.at.within(sample));
      flat.set([x, y, sample.pressure, sample.time, sample.tiltX, sample.tiltY], i * 6);
      this.points.push(x, y);
    });
    this.count += samples.length;
    this.ahead?.add(flat);
    const news = readOutline(this.at.core.PenBridge.Add(this.stroke, flat));
    this.at.wet.add(news, this.grain());
  }

  /** A straight line is written anew with every movement. */
  private straightTo(last: Sample): void {
    const { core, wet } = this.at;
    const first = this.first!;
    core.PenBridge.Drop(this.stroke);
    this.stroke = core.PenBridge.Begin(penNumbers(this.pen), 0);
    this.points = [first.x, first.y, last.x, last.y];
    const flat = Int32Array.from([first, last].flatMap(({ x, y, pressure, time }) => [x, y, pressure, time, 0, 0]));
    [this.count, this.sent] = [2, 0];
    this.ahead?.replace(flat);
    wet.replace(readOutline(core.PenBridge.Add(this.stroke, flat)), this.grain());
  }

  /** A highlighter that was drawn along printed words comes to lie on them: from the first to the last that it went over, as high as they are. */
  private layOnPrint(): void {
    const { core } = this.at;
    const words = this.at.printed();
    if (this.pen.kind !== 'highlighter' || this.edge || words.length === 0) return;
    const [x1, y1, x2, y2, width] = core.PenBridge.Along(this.points, [...words]);
    if (width === undefined) return;
    const { pressure, time } = this.first!;
    core.PenBridge.Drop(this.stroke);
    this.stroke = core.PenBridge.Begin(penNumbers({ ...this.pen, width: Math.min(mostWidth, Math.round(width)) }), 0);
    this.points = [x1!, y1!, x2!, y2!].map(Math.round);
    const [left, top, right, bottom] = this.points as [number, number, number, number];
    core.PenBridge.Add(
      this.stroke,
      Int32Array.from([left, top, pressure, time, 0, 0, right, bottom, pressure, time, 0, 0]),
    );
    // Others get it as an operation.
    [this.count, this.sent] = [2, 2];
  }

  private kept(spot: { x: number; y: number }): { x: number; y: number } {
    const guide = this.edge;
    if (!guide) return spot;
    const [x, y] = this.at.core.ShapeBridge.Keep(
      guide.round,
      guide.x,
      guide.y,
      guide.angle,
      guide.size,
      spot.x,
      spot.y,
    );
    return { x: Math.round(x!), y: Math.round(y!) };
  }

  /** A pen that rests at the end of what was meant as a shape wants it true; a word stays a word. */
  private restSoon(last: Sample): void {
    const { wet } = this.at;
    const { tidyAfter } = this.at.habits();
    if (!this.mayTidy()) return;
    if (this.timer !== undefined && Math.hypot(last.x - this.rest.x, last.y - this.rest.y) <= restWithin) return;
    this.rest = last;
    clearTimeout(this.timer);
    // Who moves on did not mean it.
    if (this.tidied) wet.propose(undefined);
    this.tidied = undefined;
    this.timer = setTimeout(() => this.tidy(), tidyAfter);
  }

  /** How densely a pencil covers the paper's grain by now; only a pencil leaves any of it bare. */
  private grain(): number | undefined {
    return this.pen.kind === 'pencil' ? this.at.core.PenBridge.Grain(this.stroke) : undefined;
  }

  private mayTidy(): boolean {
    return this.at.habits().tidyAfter > 0 && !this.edge && !this.pen.straight && this.pen.kind !== 'highlighter';
  }

  private tidy(): void {
    const { core, wet } = this.at;
    this.tidied = this.tidiedBy(this.at.habits().tidyLeast);
    if (!this.tidied) return;
    const { shape } = this.tidied;
    // It is taken on lifting the pen, and seen before.
    wet.propose(readOutline(core.ShapeBridge.Outline(shape, penNumbers(this.pen))));
  }

  /** What the stroke comes out as, for a size at which something is meant as a shape, or once it is {@link lifted}. */
  private tidiedBy(least: number): { shape: string; replaces: string[] } | undefined {
    const { core, page, paper } = this.at;
    const habits = this.at.habits();
    const printed = joinPrintedNumber(habits);
    const [shape, replaces] = core.ShapeBridge.Tidy(
      this.stroke,
      page.handle,
      paper,
      habits.join,
      printed,
      Date.now(),
      least,
    ).split('|');
    return shape ? { shape, replaces: replaces ? replaces.split(' ') : [] } : undefined;
  }

  /** Erases what a tight zig-zag lies on; true when it did. */
  private scratched(): boolean {
    if (!this.at.habits().scratch) return false;
    const { core, page } = this.at;
    const items = core.HandBridge.Scratched(page.handle, this.stroke);
    if (items.length === 0) return false;
    core.PenBridge.Drop(this.stroke);
    page.perform((handle, now) => core.HandBridge.Remove(handle, items, now));
    return true;
  }

  private sendPiece(ends: boolean): void {
    const { core, live, page } = this.at;
    // Once it is kept or dropped there is no more to be told of it than its end.
    const news = ends ? [] : core.PenBridge.Samples(this.stroke, this.sent);
    this.sent += news.length / 3;
    this.sentAt = performance.now();
    live.wet(page.address, encodePiece(this.number, this.pen, ends, news));
  }
}
