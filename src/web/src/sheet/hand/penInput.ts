import type { Habits } from '../../model/habits';
import { type View, zoomAt } from '../ink/view';

/** A sample in page units, with what the pen reports. */
export interface Sample {
  /** 0.01 mm. */
  x: number;
  y: number;
  /** 0–1023. */
  pressure: number;
  /** Milliseconds since the stroke began. */
  time: number;
  tiltX: number;
  tiltY: number;
}

/** What touches the page, and how. */
export interface Touch {
  /** A pen's tip, its tail, its tip with the side button pressed, a finger where fingers may act, or the mouse. */
  by: 'tip' | 'tail' | 'button' | 'finger' | 'mouse';
  shift: boolean;
}

/** Who is told what the hand does. Exactly one of `end` and `cancel` follows each `begin`. */
export interface HandListener {
  mayWrite(): boolean;
  habits(): Habits;
  begin(sample: Sample, touch: Touch): void;
  move(samples: Sample[]): void;
  end(): void;
  cancel(): void;
  hover(event: PointerEvent, x: number, y: number): void;
  /** The pen's side button was pressed, and is to change tools. */
  button(): void;
  /** Two or three fingers tapped together. */
  tapped(fingers: number): void;
  /** A short press without moving, while nothing is written: in read mode, or by the mouse on what leads somewhere. */
  tap(x: number, y: number): void;
  /** A long press, or a press with Ctrl, while writing. True when there is something there to be held: what was begun is then no ink. */
  hold(x: number, y: number): boolean;
  /** The hand let go after moving the sheet; a wheel has no letting go, and each turn of it stands for both. */
  letGo(byWheel: boolean): void;
  zoomLocked(): boolean;
  view(): View;
  setView(view: View): void;
}

const middleOfPressure = 512;
const tailOfPen = 32;
const sideButton = 2;
/** So long after a pen hovered over the page, what comes down is the hand that is about to write, milliseconds. */
const palmFor = 150;
/** A touch broader than this is a hand and no finger, pixels. */
const palmWidth = 60;
/** Fingers that tap together come and go within this, milliseconds. */
const tapWithin = 320;
const secondFingerWithin = 160;
const holdMilliseconds = 550;
/** So far a press may wander and still be one, pixels. */
const stillWithin = 7;

const penSeenKey = 'quill.pen-seen';
/** Whether this device has ever had a pen: on every page fingers then only scroll, also after a reload. */
let penSeen = localStorage.getItem(penSeenKey) === '1';

function seePen(): void {
  if (penSeen) return;
  penSeen = true;
  localStorage.setItem(penSeenKey, '1');
}
/** Whether a pen has ever reported any pressure; one that always reports none writes as if with the middle of it. */
let pressureSeen = false;

/**
 * Turns pointer events into strokes, panning and pinching. Once this device has had a pen, fingers only scroll and pinch, and what the palm wrote before the pen
 * came down is no ink; before that, a finger or the mouse writes, and a second finger soon after the first turns the touch into a pinch.
 */
export class PenInput {
  private writing: { id: number; start: number; type: string } | undefined;
  private panning: { id: number; x: number; y: number } | undefined;
  private spaceHeld = false;
  private pressed:
    { id: number; x: number; y: number; at: number; timer: ReturnType<typeof setTimeout> | undefined } | undefined;
  private readonly fingers = new Map<number, { x: number; y: number }>();
  private tapping: { since: number; most: number; moved: boolean } | undefined;
  private penAt = -Infinity;
  /** Where the surface lay when writing began: what is laid out anew meanwhile does not bend the line. */
  private frame: DOMRect | undefined;
  private readonly ends: (() => void)[] = [];

  constructor(
    private readonly surface: HTMLElement,
    private readonly listener: HandListener,
  ) {
    this.on('pointerdown', (event) => this.down(event));
    this.on('pointermove', (event) => this.moved(event));
    this.on('pointerup', (event) => this.up(event, false));
    this.on('pointercancel', (event) => this.up(event, true));
    this.on('contextmenu', (event) => event.preventDefault());
    this.on('wheel', (event) => this.wheel(event), { passive: false });
    const key = (event: KeyboardEvent) => {
      if (event.code === 'Space' && (event.target === document.body || event.target === surface)) {
        this.spaceHeld = event.type === 'keydown';
        event.preventDefault();
      }
    };
    addEventListener('keydown', key);
    addEventListener('keyup', key);
    this.ends.push(
      () => removeEventListener('keydown', key),
      () => removeEventListener('keyup', key),
    );
  }

  stop(): void {
    this.forgetPress();
    for (const end of this.ends) end();
  }

  private on<K extends keyof HTMLElementEventMap>(
    type: K,
    handle: (event: HTMLElementEventMap[K]) => void,
    options?: AddEventListenerOptions,
  ): void {
    this.surface.addEventListener(type, handle, options);
    this.ends.push(() => this.surface.removeEventListener(type, handle, options));
  }

  private down(event: PointerEvent): void {
    this.surface.setPointerCapture(event.pointerId);
    if (event.pointerType === 'pen') {
      seePen();
      // The pen's stroke wins over what the hand that holds it has touched.
      if (this.writing?.type === 'touch') {
        this.writing = undefined;
        this.listener.cancel();
      }
      // A hand that came down before its pen moves nothing any more.
      this.fingers.clear();
      this.tapping = undefined;
    }
    const { finger } = this.listener.habits();
    if (event.pointerType === 'touch') {
      if (this.isPalm(event)) return;
      this.fingers.set(event.pointerId, place(this.surface, event));
      this.tapping ??= { since: event.timeStamp, most: 0, moved: false };
      this.tapping.most = Math.max(this.tapping.most, this.fingers.size);
      const fresh = this.writing && event.timeStamp - this.writing.start < secondFingerWithin;
      if (this.writing?.type === 'touch' && this.fingers.size === 2 && fresh) {
        this.listener.cancel();
        this.writing = undefined;
      }
    }
    this.press(event);
    if (
      event.pointerType === 'touch' &&
      ((penSeen && (finger === 'scroll' || finger === 'nothing')) || this.fingers.size > 1)
    )
      return;
    if (this.writing) return;
    if (event.ctrlKey && event.button === 0 && this.listener.mayWrite()) {
      const { x, y } = this.onPage(event);
      if (this.listener.hold(x, y)) return;
    }
    if (event.pointerType === 'mouse' && (event.button === 1 || this.spaceHeld)) {
      this.panning = { id: event.pointerId, ...place(this.surface, event) };
      return;
    }
    if (!this.listener.mayWrite() || (event.pointerType === 'mouse' && event.button !== 0)) {
      if (event.button === 0) this.panning = { id: event.pointerId, ...place(this.surface, event) };
      return;
    }
    const by = this.touchOf(event);
    if (by === 'button' && !this.listener.habits().buttonHeld) {
      this.listener.button();
      return;
    }
    this.writing = { id: event.pointerId, start: event.timeStamp, type: event.pointerType };
    this.frame = this.surface.getBoundingClientRect();
    this.listener.begin(this.sample(event), { by, shift: event.shiftKey });
    event.preventDefault();
  }

  private touchOf(event: PointerEvent): Touch['by'] {
    if (event.pointerType === 'pen')
      return (event.buttons & tailOfPen) !== 0 ? 'tail' : (event.buttons & sideButton) !== 0 ? 'button' : 'tip';
    // Before a pen was seen a finger writes; afterwards it does what it was chosen to do.
    return event.pointerType === 'touch' ? (penSeen ? 'finger' : 'tip') : 'mouse';
  }

  /** A hand that rests beside the pen. */
  private isPalm(event: PointerEvent): boolean {
    return (
      this.writing?.type === 'pen' ||
      event.timeStamp - this.penAt < palmFor ||
      Math.max(event.width, event.height) > palmWidth
    );
  }

  /** Remembers where a press began, to know a tap or a long press by. */
  private press(event: PointerEvent): void {
    this.forgetPress();
    const { x, y } = place(this.surface, event);
    const onPage = this.onPage(event);
    const timer = setTimeout(() => {
      if (this.writing?.id !== event.pointerId || !this.listener.hold(onPage.x, onPage.y)) return;
      this.listener.cancel();
      this.writing = undefined;
    }, holdMilliseconds);
    this.pressed = { id: event.pointerId, x, y, at: event.timeStamp, timer };
  }

  private forgetPress(): void {
    clearTimeout(this.pressed?.timer);
    this.pressed = undefined;
  }

  private moved(event: PointerEvent): void {
    if (this.pressed?.id === event.pointerId) {
      const { x, y } = place(this.surface, event);
      if (Math.hypot(x - this.pressed.x, y - this.pressed.y) > stillWithin) this.forgetPress();
    }
    if (event.pointerType === 'pen' && event.buttons === 0) {
      // A pen that comes near is enough: its hand may touch the sheet before it does.
      seePen();
      this.penAt = event.timeStamp;
    }
    if (this.writing?.id === event.pointerId) {
      const coalesced = event.getCoalescedEvents?.() ?? [];
      this.listener.move((coalesced.length > 0 ? coalesced : [event]).map((one) => this.sample(one)));
    } else if (this.panning?.id === event.pointerId) {
      const now = place(this.surface, event);
      const view = this.listener.view();
      this.listener.setView({ ...view, x: view.x + now.x - this.panning.x, y: view.y + now.y - this.panning.y });
      this.panning = { id: event.pointerId, ...now };
    } else if (this.fingers.has(event.pointerId)) this.pinch(event);
    else if (event.buttons === 0) {
      const { x, y } = this.onPage(event);
      this.listener.hover(event, x, y);
    }
  }

  private up(event: PointerEvent, cancelled: boolean): void {
    const wasMoving = this.fingers.delete(event.pointerId) || this.panning?.id === event.pointerId;
    if (event.pointerType === 'touch' && this.fingers.size === 0) this.endTaps(event, cancelled);
    const isTap =
      this.pressed?.id === event.pointerId && event.timeStamp - this.pressed.at < holdMilliseconds && !cancelled;
    this.forgetPress();
    if (this.panning?.id === event.pointerId) this.panning = undefined;
    if (this.writing?.id !== event.pointerId) {
      const { x, y } = this.onPage(event);
      if (isTap) this.listener.tap(x, y);
      else if (wasMoving && this.fingers.size === 0) this.listener.letGo(false);
      return;
    }
    this.writing = undefined;
    // What a pen wrote before the system took the pointer away is ink all the same; a finger's is not, since it was becoming a gesture.
    if (cancelled && event.pointerType === 'touch') this.listener.cancel();
    else this.listener.end();
  }

  private endTaps(event: PointerEvent, cancelled: boolean): void {
    const { tapping } = this;
    this.tapping = undefined;
    const { taps } = this.listener.habits();
    if (
      !tapping ||
      cancelled ||
      tapping.moved ||
      !taps ||
      !this.listener.mayWrite() ||
      event.timeStamp - tapping.since > tapWithin
    )
      return;
    if (tapping.most === 2 || tapping.most === 3) this.listener.tapped(tapping.most);
  }

  /** One finger moves the sheet; two move and scale it about their middle. */
  private pinch(event: PointerEvent): void {
    const before = [...this.fingers.values()].slice(0, 2);
    const here = place(this.surface, event);
    const was = this.fingers.get(event.pointerId)!;
    if (this.tapping && Math.hypot(here.x - was.x, here.y - was.y) > 3) this.tapping.moved = true;
    this.fingers.set(event.pointerId, here);
    if (this.fingers.size === 1 && penSeen && this.listener.mayWrite() && this.listener.habits().finger === 'nothing')
      return;
    const after = [...this.fingers.values()].slice(0, 2);
    const view = this.listener.view();
    const [from, to] = [middle(before), middle(after)];
    const moved = { ...view, x: view.x + to.x - from.x, y: view.y + to.y - from.y };
    const factor =
      before.length === 2 && !this.listener.zoomLocked() ? distance(after) / Math.max(distance(before), 1) : 1;
    this.listener.setView(zoomAt(moved, factor, to.x, to.y));
  }

  private wheel(event: WheelEvent): void {
    event.preventDefault();
    const view = this.listener.view();
    const at = place(this.surface, event);
    const lines = event.deltaMode === WheelEvent.DOM_DELTA_LINE ? 20 : 1;
    if (event.ctrlKey || event.metaKey) {
      if (this.listener.zoomLocked()) return;
      this.listener.setView(zoomAt(view, Math.exp(-event.deltaY * lines * 0.004), at.x, at.y));
      return;
    }
    this.listener.setView({
      ...view,
      x: view.x - (event.shiftKey ? event.deltaY : event.deltaX) * lines,
      y: view.y - (event.shiftKey ? 0 : event.deltaY) * lines,
    });
    this.listener.letGo(true);
  }

  private sample(event: PointerEvent): Sample {
    if (event.pointerType === 'pen' && event.pressure > 0) pressureSeen = true;
    const pressure =
      event.pointerType === 'pen' && pressureSeen
        ? Math.round(Math.min(Math.max(event.pressure, 0), 1) * 1023)
        : middleOfPressure;
    return {
      ...this.onPage(event),
      pressure,
      time: Math.max(0, Math.round(event.timeStamp - (this.writing?.start ?? event.timeStamp))),
      tiltX: event.tiltX,
      tiltY: event.tiltY,
    };
  }

  private onPage(event: PointerEvent): { x: number; y: number } {
    const box = this.writing?.id === event.pointerId ? this.frame : undefined;
    const { x, y } = place(this.surface, event, box);
    const view = this.listener.view();
    return { x: Math.round((x - view.x) / view.scale), y: Math.round((y - view.y) / view.scale) };
  }
}

function place(
  surface: HTMLElement,
  event: MouseEvent,
  box = surface.getBoundingClientRect(),
): { x: number; y: number } {
  return { x: event.clientX - box.left, y: event.clientY - box.top };
}

function middle(points: { x: number; y: number }[]): { x: number; y: number } {
  return {
    x: points.reduce((sum, point) => sum + point.x, 0) / points.length,
    y: points.reduce((sum, point) => sum + point.y, 0) / points.length,
  };
}

function distance([a, b]: { x: number; y: number }[]): number {
  return Math.hypot(a!.x - b!.x, a!.y - b!.y);
}
