import { t } from '@lingui/core/macro';
import { ArrowClockwiseIcon, ArrowsOutCardinalIcon, XIcon } from '@phosphor-icons/react';
import { type PointerEvent as ReactPointerEvent, useEffect, useRef } from 'react';
import { lengthUnit } from '../../model/units';
import { useWorkspace } from '../../data/useWorkspace';
import type { Guide } from '../hand/things';
import type { View } from '../ink/view';
import { lengthWords, numberWords } from '../../words/language';

interface GuideLayerProps {
  guide: Guide;
  view: View;
  /** Ink is being written: what lies under the guide's body is the hand's, and only the grips move it. */
  writes: boolean;
  onGuide: (guide: Guide | undefined) => void;
}

/** As broad as `Guide.Breadth`, 0.01 mm: ink keeps to both edges. */
const bodyHigh = 1_900;
const nudge = 100;
/** A ruler's grips stand so far beside its ends, pixels, and cover nothing of its scale. */
const beside = 28;

/** A ruler with a scale, or a compass's circle, lying on the page: moved by its grip, and by its body while nothing is written, turned or widened by its end, by two fingers, or by keys. */
export function GuideLayer({ guide, view, writes, onGuide }: GuideLayerProps) {
  const { core } = useWorkspace();
  const unit = lengthUnit();
  const fingers = useRef(new Map<number, { x: number; y: number }>());
  const held = useRef<{ part: 'body' | 'end'; guide: Guide }>(undefined);
  const scale = view.scale;

  useEffect(() => {
    const key = (event: KeyboardEvent) => {
      if ((event.target as Element).closest('input, select, textarea, [role=dialog]') || event.ctrlKey || event.metaKey)
        return;
      const by = event.shiftKey ? nudge * 10 : nudge;
      const changed = (
        {
          ArrowLeft: { x: guide.x - by },
          ArrowRight: { x: guide.x + by },
          ArrowUp: { y: guide.y - by },
          ArrowDown: { y: guide.y + by },
          ',': { angle: guide.angle - 1 },
          '.': { angle: guide.angle + 1 },
        } as Record<string, Partial<Guide>>
      )[event.key];
      if (!changed) return;
      event.preventDefault();
      onGuide({ ...guide, ...changed });
    };
    addEventListener('keydown', key);
    return () => removeEventListener('keydown', key);
  });

  const begin = (part: 'body' | 'end') => (event: ReactPointerEvent) => {
    event.stopPropagation();
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
    fingers.current.set(event.pointerId, { x: event.clientX, y: event.clientY });
    held.current = { part, guide };
  };
  const move = (event: ReactPointerEvent) => {
    const before = fingers.current.get(event.pointerId);
    if (!before || !held.current) return;
    const others = [...fingers.current].filter(([id]) => id !== event.pointerId).map(([, at]) => at);
    const now = { x: event.clientX, y: event.clientY };
    fingers.current.set(event.pointerId, now);
    const other = others[0];
    if (other) {
      // Two fingers move and turn it about the one that rests.
      const turn =
        ((Math.atan2(now.y - other.y, now.x - other.x) - Math.atan2(before.y - other.y, before.x - other.x)) * 180) /
        Math.PI;
      onGuide({
        ...guide,
        angle: guide.angle + turn,
        x: guide.x + (now.x - before.x) / scale / 2,
        y: guide.y + (now.y - before.y) / scale / 2,
      });
    } else if (held.current.part === 'body')
      onGuide({ ...guide, x: guide.x + (now.x - before.x) / scale, y: guide.y + (now.y - before.y) / scale });
    else {
      const box = (event.currentTarget as Element)
        .closest('[data-testid=guide]')!
        .parentElement!.getBoundingClientRect();
      const [dx, dy] = [(now.x - box.left - view.x) / scale - guide.x, (now.y - box.top - view.y) / scale - guide.y];
      if (guide.round) onGuide({ ...guide, size: Math.max(200, Math.hypot(dx, dy)) });
      else onGuide({ ...guide, angle: core.ShapeBridge.Resting((Math.atan2(dy, dx) * 180) / Math.PI) });
    }
  };
  const end = (event: ReactPointerEvent) => {
    fingers.current.delete(event.pointerId);
    if (fingers.current.size === 0) held.current = undefined;
    if (!guide.round) onGuide({ ...guide, angle: core.ShapeBridge.Resting(guide.angle) });
  };
  const listen = { onPointerMove: move, onPointerUp: end, onPointerCancel: end };
  const at = { left: guide.x * scale + view.x, top: guide.y * scale + view.y };
  const [one, name] = unit === 'in' ? [2540, 'in'] : [1000, 'cm'];

  if (guide.round) {
    const radius = guide.size * scale;
    return (
      <div data-testid="guide" className="pointer-events-none absolute" style={at}>
        <svg className="absolute overflow-visible" width="1" height="1" aria-hidden="true">
          <circle r={radius} fill="none" stroke="#1f3d3a" strokeWidth="1.5" strokeDasharray="6 4" />
          <path d={`M0 0L${radius} 0`} stroke="#1f3d3a" strokeWidth="1" />
        </svg>
        <span
          title={t`Move the compass`}
          data-testid="guide-body"
          className="pointer-events-auto absolute grid size-11 -translate-x-1/2 -translate-y-1/2 cursor-move touch-none place-items-center rounded-full border border-primary bg-base-100/90 text-[18px]"
          onPointerDown={begin('body')}
          {...listen}
        >
          +
        </span>
        <span
          title={t`Widen the compass`}
          data-testid="guide-end"
          className="pointer-events-auto absolute grid size-11 -translate-x-1/2 -translate-y-1/2 cursor-ew-resize touch-none place-items-center"
          style={{ left: radius }}
          onPointerDown={begin('end')}
          {...listen}
        >
          <span className="size-4 rounded-full border-2 border-primary bg-paper" />
        </span>
        <span className="absolute rounded bg-base-100/90 px-1.5 text-[13px]" style={{ left: radius / 2 - 22, top: 8 }}>
          {unit === 'in' ? t`${numberWords(guide.size / 2540, 2)} in` : lengthWords(guide.size, 1)}
        </span>
        <Away onAway={() => onGuide(undefined)} />
      </div>
    );
  }
  const half = guide.size * scale;
  const ticks = Array.from({ length: Math.floor((guide.size * 2) / (one / 10)) + 1 }, (_, i) => i);
  return (
    <div
      data-testid="guide"
      className="pointer-events-none absolute"
      style={{ ...at, transform: `rotate(${guide.angle}deg)` }}
    >
      <div
        data-testid="guide-body"
        className={`absolute touch-none overflow-hidden border-y-2 border-primary bg-[#eee6d6]/85 text-[#22302e] ${writes ? '' : 'pointer-events-auto cursor-move'}`}
        style={{ left: -half, width: half * 2, height: bodyHigh * scale }}
        onPointerDown={begin('body')}
        {...listen}
      >
        <svg className="absolute inset-0 size-full" aria-hidden="true">
          <path
            d={ticks
              .map((i) => `M${(i * (one / 10) * scale).toFixed(1)} 0v${i % 10 === 0 ? 14 : i % 5 === 0 ? 10 : 6}`)
              .join('')}
            stroke="#22302e"
            strokeWidth="0.8"
          />
          {ticks
            .filter((i) => i % 10 === 0 && i > 0 && i * (one / 10) < guide.size * 2 - 300)
            .map((i) => (
              <text key={i} x={i * (one / 10) * scale} y="27" fontSize="11" textAnchor="middle" fill="#22302e">
                {i / 10}
              </text>
            ))}
          <text x="6" y="27" fontSize="11" fill="#22302e">
            {name}
          </text>
        </svg>
        <span className="absolute bottom-1 left-1/2 -translate-x-1/2 text-[13px]">
          {Math.round((((guide.angle % 180) + 180) % 180) * 10) / 10}°
        </span>
      </div>
      <span
        title={t`Move the ruler`}
        data-testid="guide-move"
        className="pointer-events-auto absolute grid size-11 -translate-x-1/2 cursor-move touch-none place-items-center rounded-full border border-primary bg-base-100"
        style={{ left: -half - beside, top: (bodyHigh * scale) / 2 - 22 }}
        onPointerDown={begin('body')}
        {...listen}
      >
        <ArrowsOutCardinalIcon size={20} />
      </span>
      <span
        title={t`Turn the ruler`}
        data-testid="guide-end"
        className="pointer-events-auto absolute grid size-11 -translate-x-1/2 cursor-grab touch-none place-items-center rounded-full border border-primary bg-base-100"
        style={{ left: half + beside, top: (bodyHigh * scale) / 2 - 22 }}
        onPointerDown={begin('end')}
        {...listen}
      >
        <ArrowClockwiseIcon size={20} />
      </span>
      <Away onAway={() => onGuide(undefined)} left={half + beside} top={(bodyHigh * scale) / 2 + 30} />
    </div>
  );
}

function Away({ onAway, left = -70, top = 4 }: { onAway: () => void; left?: number; top?: number }) {
  return (
    <button
      type="button"
      title={t`Take it away`}
      aria-label={t`Take it away`}
      data-testid="guide-away"
      className="pointer-events-auto absolute grid size-11 -translate-x-1/2 place-items-center rounded-full border border-base-300 bg-base-100"
      style={{ left, top }}
      onClick={onAway}
    >
      <XIcon size={16} />
    </button>
  );
}
