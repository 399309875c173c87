import { Grip } from '../../ui/Grip';
import { t } from '@lingui/core/macro';
import {
  ArrowElbowDownLeftIcon,
  ArrowLeftIcon,
  ArrowRightIcon,
  MinusIcon,
  PlusIcon,
  XIcon,
} from '@phosphor-icons/react';
import { type PointerEvent as ReactPointerEvent, useEffect, useMemo, useRef, useState } from 'react';
import type { Area } from '../../model/drawing';
import type { OpenDocument } from '../../sync/openDocument';
import { useWorkspace } from '../../data/useWorkspace';
import { useStable } from '../../ui/useStable';
import { mayWriteOnLayer } from '../tools/layers';
import { SignButton } from '../../ui/Button';
import { Blotter } from '../blotter/blotter';
import type { Under } from '../blotter/ground';
import { type SheetEvents, unheard } from '../hand/events';
import { handToolOf } from '../tools/handTools';
import { toScreen, type View } from '../ink/view';
import type { Tools } from '../hand/tool';

interface LoupeProps {
  /** The sheet above, for what is seen of it and to keep its settings. */
  main: Blotter;
  view: View;
  page: OpenDocument;
  under: Under;
  tools: Tools;
  /** Ink came through the loupe. */
  onInk: (down: number) => void;
}

const high = 190;
/** Below the box its grip hangs. */
const gripRoom = 24;
const leastTimes = 1.6;
const mostTimes = 6;
/** Ink that ends in this last part of the strip makes the box step on. */
const stepZone = 0.8;
const stepAfter = 450;
const none = { turning: 'sideways', before: undefined, after: undefined } as const;

/** A close-up strip at the foot: one writes in it as large as one likes, and it lies small in the box on the page, which steps along the lines. */
export function Loupe({ main, view, page, under, tools, onInk }: LoupeProps) {
  const { core, live } = useWorkspace();
  const holder = useRef<HTMLDivElement>(null);
  const [strip, setStrip] = useState<Blotter>();
  const [times, setTimes] = useState(3);
  const [box, setBox] = useState<Area>();
  const [begin, setBegin] = useState(0);
  const width = holder.current?.clientWidth ?? 900;
  const size = { wide: width / (view.scale * times), high: high / (view.scale * times) };
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);

  // Where it lies first: at the left of what is seen, a third down.
  useEffect(() => {
    const { sheet } = main;
    const { middle } = main.view;
    const left = Math.max(sheet[0], Math.min(middle.x - size.wide, sheet[2] - size.wide));
    put([left, middle.y - size.high, left + size.wide, middle.y]);
    setBegin(left);
  }, [main]);
  useEffect(() => {
    if (box) put([box[0], box[1], box[0] + size.wide, box[1] + size.high]);
  }, [times, width]);

  useEffect(() => {
    const made = new Blotter(holder.current!, {
      core,
      page,
      live,
      under,
      mayWrite: true,
      room: { left: 0, right: 0 },
      next: none,
      isLoupe: true,
    });
    setStrip(made);
    return () => made.stop();
  }, [core, page, live, under.paper]);

  useEffect(() => {
    if (!strip || !box) return;
    const scale = view.scale * times;
    strip.view.look({ scale, x: -box[0] * scale, y: -box[1] * scale });
  }, [strip, box, view.scale, times]);

  const { held, tool, standIns, habits, tray, chosen } = tools;
  const pen = tray[chosen]!;
  // Through the loupe one writes and rubs out; whatever else is in the hand, it writes.
  const inLoupe = useMemo(
    () => (held === 'pen' || held === 'eraser' ? tool : handToolOf('pen').hold({}, pen)),
    [held, tool, pen],
  );
  const layer = tools.layerOf(page.id);
  useEffect(
    () => strip?.give({ tool: inLoupe, standIns, habits: { ...habits, tidyAfter: 0 }, layer }),
    [strip, inLoupe, standIns, habits, layer],
  );
  const events = useStable<SheetEvents>({
    ...unheard,
    begun: () => {
      clearTimeout(timer.current);
      tools.fold();
    },
    mayWriteOn: () => mayWriteOnLayer(core, page, layer, tools),
    inked: (down) => {
      onInk(down);
      const last = strip?.lastInk;
      if (last && box && last[2] > box[0] + (box[2] - box[0]) * stepZone)
        timer.current = setTimeout(() => step(0), stepAfter);
    },
  });
  useEffect(() => strip?.listen(events), [strip, events]);
  useEffect(() => () => clearTimeout(timer.current), []);
  // The page follows, so that one sees where the box lies.
  useEffect(() => {
    if (box) main.view.reveal(box, high + gripRoom);
  }, [main, box]);

  function put(area: Area): void {
    setBox(area);
  }
  const step = (way: 0 | 1 | 2) =>
    box &&
    put(
      core.HandBridge.LoupeStep(
        page.handle,
        under.paper,
        box.map(Math.round),
        Math.round(begin),
        way,
      ) as unknown as Area,
    );
  return (
    <>
      {box && (
        <LoupeBox
          box={box}
          view={view}
          onMove={(dx, dy) => {
            put([box[0] + dx, box[1] + dy, box[2] + dx, box[3] + dy]);
            setBegin(box[0] + dx);
          }}
        />
      )}
      <section
        aria-label={t`Loupe`}
        data-testid="loupe"
        className="absolute inset-x-0 bottom-0 z-10 flex border-t border-base-300 bg-base-200"
        style={{ height: high + 2 }}
      >
        <div
          ref={holder}
          data-testid="loupe-strip"
          className="relative min-w-0 grow cursor-crosshair touch-none select-none overflow-hidden bg-desk"
        />
        <div
          className="pointer-events-none absolute bottom-0 right-[100px] top-0 border-l border-dashed border-[#4f7388]/50 bg-[#4f7388]/5"
          style={{ width: width * (1 - stepZone) }}
          aria-hidden="true"
        />
        <div className="grid w-[100px] shrink-0 grid-cols-2 content-around justify-items-center border-s border-base-300 py-1">
          <SignButton label={t`Step on`} data-testid="loupe-on" onClick={() => step(0)}>
            <ArrowRightIcon size={18} />
          </SignButton>
          <SignButton label={t`Step back`} data-testid="loupe-back" onClick={() => step(1)}>
            <ArrowLeftIcon size={18} />
          </SignButton>
          <SignButton
            label={t`Less close`}
            data-testid="loupe-less"
            onClick={() => setTimes(Math.max(leastTimes, times / 1.25))}
          >
            <MinusIcon size={14} />
          </SignButton>
          <SignButton
            label={t`Closer`}
            data-testid="loupe-more"
            onClick={() => setTimes(Math.min(mostTimes, times * 1.25))}
          >
            <PlusIcon size={14} />
          </SignButton>
          <SignButton label={t`Next line`} data-testid="loupe-line" onClick={() => step(2)}>
            <ArrowElbowDownLeftIcon size={18} />
          </SignButton>
          <SignButton
            label={t`Put the loupe away`}
            data-testid="loupe-close"
            onClick={() => tools.turn('loupe', false)}
          >
            <XIcon size={16} />
          </SignButton>
        </div>
      </section>
    </>
  );
}

/** An arrow key moves the box so far, 0.01 mm. */
const keyStep = 100;

/** The box on the page that the strip shows, dragged to where one wants to write. */
function LoupeBox({ box, view, onMove }: { box: Area; view: View; onMove: (dx: number, dy: number) => void }) {
  const held = useRef<{ x: number; y: number }>(undefined);
  const move = (event: ReactPointerEvent) => {
    if (!held.current) return;
    onMove((event.clientX - held.current.x) / view.scale, (event.clientY - held.current.y) / view.scale);
    held.current = { x: event.clientX, y: event.clientY };
  };
  const end = () => (held.current = undefined);
  return (
    <div
      data-testid="loupe-box"
      className="pointer-events-none absolute border-[1.5px] border-[#4f7388] bg-[#4f7388]/5"
      style={toScreen(box, view)}
    >
      <Grip
        label={t`Move the loupe`}
        onStep={(right, down) => onMove(right * keyStep, down * keyStep)}
        data-testid="loupe-grip"
        className="pointer-events-auto absolute -bottom-5 left-1/2 grid h-11 w-14 -translate-x-1/2 cursor-move place-items-center"
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          held.current = { x: event.clientX, y: event.clientY };
        }}
        onPointerMove={move}
        onPointerUp={end}
        onPointerCancel={end}
      >
        <span className="h-2 w-9 rounded-full border border-[#4f7388] bg-base-100" />
      </Grip>
    </div>
  );
}
