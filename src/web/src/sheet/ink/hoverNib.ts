import type { View } from './view';

const leastSize = 3;

/** The nib where a pen hovers: as large and of the colour that it would write with; a ring for an eraser. */
export class HoverNib {
  private readonly dot = document.createElement('div');

  constructor(private readonly holder: HTMLElement) {
    this.dot.className = 'pointer-events-none absolute rounded-full border border-[#22302e99]';
    this.dot.dataset.testid = 'hover-nib';
    this.dot.hidden = true;
    holder.append(this.dot);
    holder.addEventListener('pointerleave', () => this.hide());
  }

  /** For a pen that reports where it is before it touches; the mouse has a pointer of its own. */
  show(event: PointerEvent, width: number, colour: string | undefined, view: View): void {
    if (event.pointerType !== 'pen' && colour !== undefined) return this.hide();
    const box = this.holder.getBoundingClientRect();
    const size = Math.max(width * view.scale, leastSize);
    const { style } = this.dot;
    [style.width, style.height] = [`${size}px`, `${size}px`];
    style.transform = `translate(${event.clientX - box.left - size / 2}px, ${event.clientY - box.top - size / 2}px)`;
    style.background = colour ?? '';
    style.opacity = colour ? '0.75' : '1';
    this.dot.hidden = false;
  }

  hide(): void {
    this.dot.hidden = true;
  }
}
