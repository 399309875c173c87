import { canvasIn, pixelRatio, sizeCanvas } from '../sheet/ink/canvases';
import type { View } from '../sheet/ink/view';

interface Place {
  x: number;
  y: number;
  at: number;
}

/** A place glows for so long, ms. */
const glows = 1_200;
/** After such a pause the pen has begun anew somewhere else, ms. */
const apart = 200;
const width = 7;
/** Madder, which is seen on every paper. */
const colour = '180 83 60';

/** Paints where a leader points: a glowing trail that fades, of which nothing is kept. */
export class Trail {
  private readonly canvas: HTMLCanvasElement;
  private readonly sizes: ResizeObserver;
  private readonly trails = new Map<string, Place[]>();
  private view: View = { scale: 1, x: 0, y: 0 };
  private frame = 0;

  constructor(private readonly holder: HTMLElement) {
    this.canvas = canvasIn(holder);
    this.canvas.dataset.testid = 'pointer-trail';
    this.sizes = new ResizeObserver(() => this.resize());
    this.sizes.observe(holder);
    this.resize();
  }

  setView(view: View): void {
    this.view = view;
    this.paintSoon();
  }

  /** @param places x and y in 0.01 mm, one after the other. */
  add(who: string, places: readonly number[]): void {
    const now = performance.now();
    const trail = this.trails.get(who) ?? [];
    for (let i = 0; i + 1 < places.length; i += 2) trail.push({ x: places[i]!, y: places[i + 1]!, at: now });
    this.trails.set(who, trail);
    this.paintSoon();
  }

  stop(): void {
    this.sizes.disconnect();
    cancelAnimationFrame(this.frame);
    this.canvas.remove();
  }

  private resize(): void {
    sizeCanvas(this.canvas, this.holder.clientWidth, this.holder.clientHeight);
    this.paintSoon();
  }

  private paintSoon(): void {
    if (!this.frame) this.frame = requestAnimationFrame(() => this.paint());
  }

  private paint(): void {
    this.frame = 0;
    const now = performance.now();
    const context = this.canvas.getContext('2d')!;
    const ratio = pixelRatio();
    context.setTransform(ratio, 0, 0, ratio, 0, 0);
    context.clearRect(0, 0, this.canvas.width, this.canvas.height);
    for (const [who, trail] of this.trails) {
      const glowing = trail.filter((place) => now - place.at < glows);
      if (glowing.length === 0) this.trails.delete(who);
      else {
        this.trails.set(who, glowing);
        this.paintTrail(context, glowing, now);
      }
    }
    this.canvas.dataset.glows = String(this.trails.size);
    if (this.trails.size > 0) this.paintSoon();
  }

  private paintTrail(context: CanvasRenderingContext2D, trail: Place[], now: number): void {
    const on = ({ x, y }: Place) => [x * this.view.scale + this.view.x, y * this.view.scale + this.view.y] as const;
    for (let i = 1; i < trail.length; i++) {
      const [from, to] = [trail[i - 1]!, trail[i]!];
      if (to.at - from.at > apart) continue;
      const left = 1 - (now - to.at) / glows;
      context.strokeStyle = `rgb(${colour} / ${left * 0.75})`;
      context.lineWidth = 2 + width * left;
      context.beginPath();
      context.moveTo(...on(from));
      context.lineTo(...on(to));
      context.stroke();
    }
    const last = trail.at(-1)!;
    const [x, y] = on(last);
    const left = 1 - (now - last.at) / glows;
    const glow = context.createRadialGradient(x, y, 0, x, y, width * 2.4);
    glow.addColorStop(0, `rgb(${colour} / ${left * 0.95})`);
    glow.addColorStop(0.35, `rgb(${colour} / ${left * 0.7})`);
    glow.addColorStop(1, `rgb(${colour} / 0)`);
    context.fillStyle = glow;
    context.beginPath();
    context.arc(x, y, width * 2.4, 0, Math.PI * 2);
    context.fill();
  }
}
