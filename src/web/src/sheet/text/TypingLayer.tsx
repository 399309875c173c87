import { t } from '@lingui/core/macro';
import { useEffect, useLayoutEffect, useRef, useState } from 'react';
import type { Seen } from '../../core/seenBridge';
import { useWorkspace } from '../../data/useWorkspace';
import type { OpenDocument } from '../../sync/openDocument';
import type { TypingPlace } from '../hand/things';
import type { Tools } from '../hand/tool';
import type { View } from '../ink/view';
import { text, type TextSettings } from '../tools/text';
import { type FirstLooks, Typing } from './typing';
import { DragEdge } from './DragEdge';
import { TableEdges } from './TableEdges';
import type { SeenActs } from './SeenOffers';
import { TypingStrip } from './TypingStrip';

interface TypingLayerProps {
  page: OpenDocument;
  paper: string;
  place: TypingPlace;
  view: View;
  tools: Tools;
  undo: () => void;
  redo: () => void;
  /** What is seen on the page, and can be done with it. */
  seen: Seen[];
  acts: SeenActs;
  onLeave: () => void;
  /** Plots what stands in a table. */
  onPlot: (table: string) => void;
}

/** The least width of a text, 0.01 mm. */
const leastMeasure = 500;

/** Somebody typing on a page: the caret, what is selected, the edge that says how wide the text is, and the strip of what can be done with it. */
export function TypingLayer(props: TypingLayerProps) {
  const { page, paper, place, view, tools, undo, redo, seen, acts, onLeave, onPlot } = props;
  const { core, live } = useWorkspace();
  const root = useRef<HTMLDivElement>(null);
  const layer = useRef<HTMLDivElement>(null);
  const [typing, setTyping] = useState<Typing>();
  const [, setTold] = useState(0);
  const latest = useRef({ view, tools, undo, redo, onLeave });
  latest.current = { view, tools, undo, redo, onLeave };

  useEffect(() => {
    let isOver = false;
    const made = new Typing(
      root.current!,
      {
        core,
        page,
        paper,
        layer: () => latest.current.tools.layerOf(page.id),
        looks: () => looksOf(latest.current.tools.settingsOf(text)),
        isOnLines: () => latest.current.tools.settingsOf(text).onLines,
        view: () => latest.current.view,
        tellCaret: (...at) => live.say('Caret', page.address, ...at),
        undo: () => latest.current.undo(),
        redo: () => latest.current.redo(),
        changed: () => !isOver && setTold((count) => count + 1),
        leave: () => !isOver && latest.current.onLeave(),
      },
      place,
    );
    setTyping(made);
    const stop = page.subscribe(() => made.refresh());
    return () => {
      isOver = true;
      stop();
      made.stop();
    };
  }, [core, live, page, paper, place]);

  useLayoutEffect(() => typing?.refresh(), [typing, view.scale, view.x, view.y]);

  const lies = typing?.lies;
  const [a, b, c, d, e, f] = lies?.place ?? [1, 0, 0, 1, 0, 0];
  const { scale, x, y } = view;
  const grown = Math.hypot(a, b);
  const pixels = scale * grown;
  const [left, top, right, bottom] = lies?.box ?? [0, 0, 0, 0];
  // Beside a whole table, so that its other cells are there to be pressed.
  const table = typing?.table.shown;
  return (
    <div
      ref={layer}
      className="pointer-events-none absolute inset-0 z-10 overflow-hidden"
      role="group"
      aria-label={t`Typed text`}
      data-testid="typing"
    >
      <div
        className="absolute top-0 left-0 origin-top-left"
        style={{
          transform: `matrix(${a / grown}, ${b / grown}, ${c / grown}, ${d / grown}, ${e * scale + x}, ${f * scale + y})`,
        }}
      >
        <div
          aria-hidden="true"
          data-testid="typing-frame"
          className="absolute border border-dashed border-[#8d8a7b]"
          style={{
            left: left * pixels - 4,
            top: top * pixels - 3,
            width: (right - left) * pixels + 8,
            height: (bottom - top) * pixels + 6,
          }}
        />
        <div
          ref={root}
          contentEditable
          suppressContentEditableWarning
          role="textbox"
          aria-multiline="true"
          aria-label={t`Typed text`}
          data-testid="typing-field"
          spellCheck
          className="typing-field pointer-events-auto absolute touch-none outline-none"
          style={{
            left: 0,
            top: 0,
            width: (lies?.measure ?? 0) * pixels,
            // Above the first line it reaches as far as letters do; before there are any the caret stands in its middle.
            height: (bottom - top) * pixels,
            marginTop: top * pixels,
            ...(typing?.isThere ? {} : { lineHeight: `${(bottom - top) * pixels}px` }),
          }}
        />
        {typing?.told?.hasEdge && (
          <DragEdge
            upright
            label={t`Length of the lines`}
            title={t`Drag to make the lines longer or shorter`}
            testId="typing-edge"
            x={right * pixels + 4}
            y={((top + bottom) / 2) * pixels}
            onMoved={(by) => typing.setMeasure(Math.max(leastMeasure, lies!.measure + by / pixels))}
          />
        )}
      </div>
      {typing?.told?.cell && <TableEdges typed={typing.table} view={view} />}
      {typing && (
        <TypingStrip
          typing={typing}
          left={x + e * scale}
          room={{ width: layer.current?.clientWidth ?? 0, height: layer.current?.clientHeight ?? 0 }}
          head={table ? table.place[5] * scale + y : y + f * scale + top * pixels}
          foot={
            table ? (table.place[5] + table.down.at(-1)! * table.place[3]) * scale + y : y + f * scale + bottom * pixels
          }
          seen={seen}
          acts={acts}
          onLeave={onLeave}
          onPlot={onPlot}
        />
      )}
    </div>
  );
}

/** How text is to look that is begun anew: what is other than usual. */
function looksOf({ style, family, size, colour }: TextSettings): FirstLooks {
  return {
    ...(style ? { style } : {}),
    ...(family === 'serif' ? {} : { family }),
    ...(size === 0 ? {} : { size: String(size) }),
    ...(colour === '#22302e' ? {} : { colour: `${colour.slice(1)}ff` }),
  };
}
