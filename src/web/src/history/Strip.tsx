import { type PointerEvent, useMemo, useRef } from 'react';
import type { Moment } from '../data/useNotebook';
import type { Writer } from '../data/usePeople';
import { inkOf } from '../model/colours';
import { shortDateWords } from '../model/time';
import { type Chart, columns, daysOf, heightOf, laneHeight, lanesOf } from './chart';

/** Two names of days stand so far apart at least, as a share of the bar. */
const dayApart = 0.13;
/** So many moments a key with Shift goes. */
const manySteps = 10;

export interface StripProps {
  /** What it is a bar of. */
  label: string;
  chart: Chart;
  people: Writer[];
  moments: Moment[];
  /** Where a time stands on the bar; undefined for one that is not on it. */
  placeOf: (time: number) => number;
  count: number;
  position: number;
  /** The moment in words, for who hears it. */
  words: string;
  onGo: (count: number) => void;
  onGoTo: (position: number) => void;
  /** To the end of the sitting before or after. */
  onSitting: (later: boolean) => void;
}

/** The bar of time: each person's writing as short strokes in their colour on a line of their own, and a needle that is drawn along it. */
export function Strip({
  label,
  chart,
  people,
  moments,
  placeOf,
  count,
  position,
  words,
  onGo,
  onGoTo,
  onSitting,
}: StripProps) {
  const bar = useRef<HTMLDivElement>(null);
  const lanes = useMemo(() => lanesOf(chart), [chart]);
  const days = useMemo(() => daysOf(chart, dayApart), [chart]);
  const height = heightOf(lanes.length);
  const colourOf = (id: string) => inkOf[people.find((one) => one.id === id)?.colour ?? ''] ?? inkOf.spruce;
  const pull = (event: PointerEvent) => {
    const { left, width } = bar.current!.getBoundingClientRect();
    onGoTo((event.clientX - left) / width);
  };
  const keys: Record<string, (many: number) => void> = {
    ArrowLeft: (many) => onGo(Math.max(0, count - many)),
    ArrowDown: (many) => onGo(Math.max(0, count - many)),
    ArrowRight: (many) => onGo(Math.min(chart.length, count + many)),
    ArrowUp: (many) => onGo(Math.min(chart.length, count + many)),
    PageDown: () => onSitting(false),
    PageUp: () => onSitting(true),
    Home: () => onGo(0),
    End: () => onGo(chart.length),
  };
  return (
    <div className="relative px-2 pt-3 pb-5">
      <div
        ref={bar}
        role="slider"
        tabIndex={0}
        aria-label={label}
        aria-valuemin={0}
        aria-valuemax={chart.length}
        aria-valuenow={count}
        aria-valuetext={words}
        data-testid="history-bar"
        className="relative cursor-ew-resize touch-none rounded-sm bg-base-200 select-none"
        style={{ height }}
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          pull(event);
        }}
        onPointerMove={(event) => event.currentTarget.hasPointerCapture(event.pointerId) && pull(event)}
        onKeyDown={(event) => {
          const act = keys[event.key];
          if (!act) return;
          event.preventDefault();
          event.stopPropagation();
          act(event.shiftKey ? manySteps : 1);
        }}
      >
        <svg
          viewBox={`0 0 ${columns} ${lanes.length * laneHeight || 1}`}
          preserveAspectRatio="none"
          aria-hidden="true"
          className="absolute inset-0 size-full"
        >
          {chart.sittings.map(([from, , left, right]) => (
            <rect
              key={from}
              x={left * columns}
              width={(right - left) * columns}
              y={0}
              height="100%"
              className="fill-base-100"
            />
          ))}
          {lanes.map(({ people: of, path }) => (
            <path
              key={of[0]}
              d={path}
              fill="none"
              stroke={colourOf(of[0]!)}
              strokeWidth={1.6}
              vectorEffect="non-scaling-stroke"
            />
          ))}
        </svg>
        {moments.map((moment) => (
          <span
            key={moment.id}
            aria-hidden="true"
            className="absolute -top-2.5 h-2.5 border-s-2 border-gold"
            style={{ left: `${placeOf(moment.at) * 100}%`, height: height + 10 }}
          />
        ))}
        <span
          aria-hidden="true"
          data-testid="history-needle"
          className="absolute -top-2 w-0.5 -translate-x-1/2 bg-primary"
          style={{ left: `${position * 100}%`, height: height + 14 }}
        >
          <span className="absolute -top-1 left-1/2 size-3.5 -translate-x-1/2 rounded-full border-2 border-base-100 bg-primary" />
        </span>
        {days.map(({ at, left }) => (
          <span
            key={at}
            className="absolute top-full pt-0.5 text-[12px] whitespace-nowrap text-quiet"
            style={{ left: `${left * 100}%` }}
          >
            {shortDateWords(at)}
          </span>
        ))}
      </div>
    </div>
  );
}
