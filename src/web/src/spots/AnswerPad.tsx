import { t } from '@lingui/core/macro';
import { ArrowCounterClockwiseIcon } from '@phosphor-icons/react';
import { type PointerEvent as ReactPointerEvent, useEffect, useRef, useState } from 'react';
import { documentKinds } from '../core/runtime';
import { useWorkspace } from '../data/useWorkspace';
import { firstTray, penNumbers } from '../model/pens';
import { trueScale } from '../sheet/ink/view';
import { pixelRatio, sizeCanvas } from '../sheet/ink/canvases';
import { paintItem, readOutline, readPacket } from '../sheet/ink/packet';
import { SignButton } from '../ui/Button';

const size = { width: 272, height: 116 };
const pen = firstTray[0]!;
/** Of a pen that does not tell how hard it is pressed, of 1,023. */
const usualPressure = 512;

interface AnswerPadProps {
  /** What stands on it, as a piece that was cut; empty for nothing. */
  onInk: (ink: Uint8Array) => void;
}

/** A slip to write an answer on by hand. What is written is on no page until it is said. */
export function AnswerPad({ onInk }: AnswerPadProps) {
  const { core } = useWorkspace();
  const canvas = useRef<HTMLCanvasElement>(null);
  const slip = useRef(0);
  const stroke = useRef<{ number: number; pointer: number; startedAt: number; from: number }>(undefined);
  const [isEmpty, setEmpty] = useState(true);
  const scale = trueScale();

  useEffect(() => {
    sizeCanvas(canvas.current!, size.width, size.height);
    slip.current = core.DocumentBridge.Open(documentKinds.page);
    return () => core.DocumentBridge.Close(slip.current);
  }, [core]);

  const brush = () => {
    const context = canvas.current!.getContext('2d')!;
    const unit = scale * pixelRatio();
    context.setTransform(unit, 0, 0, unit, 0, 0);
    return context;
  };
  const paint = () => {
    const context = brush();
    context.clearRect(0, 0, size.width / scale, size.height / scale);
    const whole = [0, 0, size.width / scale, size.height / scale].map(Math.round);
    for (const item of readPacket(core.SpotBridge.Cut(slip.current, whole, ''))) paintItem(context, item);
  };
  const add = (events: readonly PointerEvent[]) => {
    const { left, top } = canvas.current!.getBoundingClientRect();
    const samples = new Int32Array(events.length * 6);
    events.forEach((event, i) => {
      const x = Math.min(Math.max(event.clientX - left, 0), size.width) / scale;
      const y = Math.min(Math.max(event.clientY - top, 0), size.height) / scale;
      const pressure = event.pointerType === 'pen' ? Math.round(event.pressure * 1_023) : usualPressure;
      samples.set(
        [x, y, pressure, event.timeStamp - stroke.current!.from, event.tiltX, event.tiltY].map(Math.round),
        i * 6,
      );
    });
    const context = brush();
    context.fillStyle = pen.colour;
    context.fill(readOutline(core.PenBridge.Add(stroke.current!.number, samples)));
  };
  const begin = (event: ReactPointerEvent<HTMLDivElement>) => {
    if (stroke.current || event.button !== 0) return;
    event.preventDefault();
    event.currentTarget.setPointerCapture(event.pointerId);
    const number = core.PenBridge.Begin(penNumbers(pen), pen.stabilising);
    stroke.current = { number, pointer: event.pointerId, startedAt: Date.now(), from: event.timeStamp };
    add([event.nativeEvent]);
  };
  const move = (event: ReactPointerEvent<HTMLDivElement>) => {
    if (stroke.current?.pointer !== event.pointerId) return;
    const all = event.nativeEvent.getCoalescedEvents?.() ?? [];
    add(all.length > 0 ? all : [event.nativeEvent]);
  };
  const end = (event: ReactPointerEvent<HTMLDivElement>) => {
    const written = stroke.current;
    if (written?.pointer !== event.pointerId) return;
    stroke.current = undefined;
    core.PenBridge.End(written.number);
    core.PenBridge.Keep(written.number, slip.current, '', written.startedAt, Date.now());
    paint();
    setEmpty(false);
    onInk(core.HandBridge.Cut(slip.current, core.HandBridge.AllOpen(slip.current)));
  };
  const wipe = () => {
    core.DocumentBridge.Close(slip.current);
    slip.current = core.DocumentBridge.Open(documentKinds.page);
    paint();
    setEmpty(true);
    onInk(new Uint8Array());
  };
  return (
    <div className="relative mt-1">
      <div
        role="application"
        aria-label={t`Write your answer here by hand`}
        data-testid="answer-pad"
        className="w-fit cursor-crosshair touch-none rounded border border-base-300 bg-paper"
        onPointerDown={begin}
        onPointerMove={move}
        onPointerUp={end}
        onPointerCancel={end}
      >
        <canvas ref={canvas} style={size} className="block" />
      </div>
      {!isEmpty && (
        <SignButton label={t`Wipe it off`} className="absolute end-0 top-0" data-testid="answer-wipe" onClick={wipe}>
          <ArrowCounterClockwiseIcon size={18} />
        </SignButton>
      )}
    </div>
  );
}
