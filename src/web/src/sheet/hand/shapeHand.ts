import { readOutline } from '../ink/packet';
import type { Sample } from './penInput';
import { type Pen, penNumbers, rgbaOf, toRgba } from '../../model/pens';
import { boxOf, type Hand, type Workplace } from './hand';
import { joinPrintedNumber } from '../../model/habits';

/** What a shape tool draws: what the hand meant, or a chosen kind dragged out. The numbers are Core's. */
export const shapeKinds = {
  free: 0,
  line: 1,
  arrow: 2,
  doubleArrow: 3,
  circle: 4,
  ellipse: 5,
  triangle: 6,
  square: 7,
  rectangle: 8,
  rhombus: 9,
  parallelogram: 10,
  trapezoid: 11,
  polygon: 12,
  star: 14,
  arc: 15,
  wave: 17,
  connector: 20,
} as const;
export type ShapeChoice = keyof typeof shapeKinds;

/** How a connector runs, and what stands at its ends; as Core numbers them. */
export const connectorRoutes = { straight: 0, bent: 1, curved: 2 } as const;
export const connectorEnds = { none: 0, arrow: 1, dot: 2 } as const;

/** What a shape tool is set to. */
export interface ShapeSettings {
  kind: ShapeChoice;
  /** #rrggbb, or empty for none. */
  fill: string;
  fillOpacity: number;
  /** How a connector runs, and what stands at its ends. */
  route: keyof typeof connectorRoutes;
  start: keyof typeof connectorEnds;
  end: keyof typeof connectorEnds;
}

const leastDragged = 200;

/** Drawing shapes: by hand, coming out true when the pen is lifted, or of a chosen kind dragged out between two spots. */
export class ShapeHand implements Hand {
  private stroke = 0;
  private startedAt = 0;
  private points: number[] = [];
  private shape = '';

  constructor(
    private readonly at: Workplace,
    private readonly tool: ShapeSettings & { pen: Pen },
  ) {}

  begin(sample: Sample): void {
    const { core, wet, view } = this.at;
    this.stroke = core.PenBridge.Begin(penNumbers(this.tool.pen), 0);
    this.startedAt = Date.now();
    this.points = [];
    wet.begin(this.tool.pen.colour, (rgbaOf(this.tool.pen) % 256) / 255, view());
    this.move([sample]);
  }

  move(samples: Sample[]): void {
    const { core, wet } = this.at;
    for (const { x, y } of samples) this.points.push(x, y);
    if (this.tool.kind === 'free') {
      wet.add(
        readOutline(
          core.PenBridge.Add(
            this.stroke,
            Int32Array.from(
              samples.flatMap((sample) => [
                sample.x,
                sample.y,
                sample.pressure,
                sample.time,
                sample.tiltX,
                sample.tiltY,
              ]),
            ),
          ),
        ),
      );
      return;
    }
    const [x1, y1] = this.points as [number, number];
    const [x2, y2] = this.points.slice(-2) as [number, number];
    this.shape =
      this.tool.kind === 'connector'
        ? core.DiagramBridge.Between(this.at.page.handle, x1, y1, x2, y2, this.look)
        : core.ShapeBridge.Between(shapeKinds[this.tool.kind], x1, y1, x2, y2, this.at.shift());
    wet.replace(readOutline(core.ShapeBridge.Outline(this.shape, penNumbers(this.tool.pen))));
  }

  end(): void {
    const { core, page, paper, wet } = this.at;
    wet.clear();
    const [left, top, right, bottom] = boxOf(this.points);
    const { join } = this.at.habits();
    const printed = joinPrintedNumber(this.at.habits());
    const pen = penNumbers(this.tool.pen);
    if (this.tool.kind !== 'free') {
      core.PenBridge.Drop(this.stroke);
      if (Math.hypot(right - left, bottom - top) < leastDragged) return;
      if (this.tool.kind === 'connector') {
        const ends = [...this.points.slice(0, 2), ...this.points.slice(-2)];
        page.performTogether((handle, now) =>
          core.DiagramBridge.Connect(handle, ends, this.look, pen, this.at.layer(), now),
        );
        this.at.wrote([left, top, right, bottom]);
        return;
      }
      const shape = join > 0 ? core.ShapeBridge.Join(page.handle, this.shape, [], paper, join, printed) : this.shape;
      page.perform((handle, now) => core.ShapeBridge.Add(handle, shape, pen, this.fill, [], this.at.layer(), now));
      this.at.wrote([left, top, right, bottom]);
      return;
    }
    const [shape, replaces] = core.ShapeBridge.Tidy(
      this.stroke,
      page.handle,
      paper,
      join,
      printed,
      Date.now(),
      -1,
    ).split('|');
    if (shape)
      void page.performAll((handle, now) =>
        core.ShapeBridge.AddTidied(
          this.stroke,
          handle,
          shape,
          pen,
          this.fill,
          replaces ? replaces.split(' ') : [],
          this.at.layer(),
          this.startedAt,
          now,
        ),
      );
    else page.perform((handle, now) => core.PenBridge.Keep(this.stroke, handle, this.at.layer(), this.startedAt, now));
    this.at.wrote([left, top, right, bottom]);
  }

  cancel(): void {
    this.at.core.PenBridge.Drop(this.stroke);
    this.at.wet.clear();
  }

  private get look(): number[] {
    const { route, start, end } = this.tool;
    return [connectorRoutes[route], connectorEnds[start], connectorEnds[end]];
  }

  private get fill(): number {
    return this.tool.fill ? toRgba(this.tool.fill, this.tool.fillOpacity) : 0;
  }
}
