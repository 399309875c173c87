import { t } from '@lingui/core/macro';
import { sentenceOf } from '../../core/runtime';
import { broughtStamp, countStamp } from '../../data/stamps';
import { say } from '../../ui/saying';
import { BoxHand } from './boxHand';
import type { Hand, Workplace } from './hand';

/** What a stamp is set to. */
export interface StampSettings {
  /** Which one; empty for none yet. */
  stamp: string;
  /** How wide, 0.01 mm; 0 for as it was kept. */
  width: number;
  /** #rrggbb, or empty for its own colours. */
  colour: string;
}

/** What is dragged less far, 0.01 mm, is a press. */
const leastDragged = 300;
const frameColour = '#1f3d3b';

/** Lays a stamp down where it is pressed, or as wide as it is dragged. */
export function stampHand(at: Workplace, tool: StampSettings): Hand {
  const lay = (x: number, y: number, width: number) => {
    const { core, page, layer } = at;
    const piece = broughtStamp(tool.stamp);
    if (!piece) return say(t`Choose a stamp first.`);
    try {
      const placed = core.StampBridge.Placed(piece.bytes, x, y, width, tool.colour.slice(1));
      const all = core.HandBridge.BeginLay(page.handle, placed, 0, 0, layer());
      page.performTogether((handle, now) => core.HandBridge.LayMore(handle, all + 1, now));
    } catch (problem) {
      return say(sentenceOf(problem));
    }
    // What it shows comes along, when it can.
    const shown = core.ThingBridge.AssetsOf(piece.bytes);
    if (shown.length > 0) at.events().needs(shown, piece.space);
    countStamp(tool.stamp);
    at.wrote([x - width / 2, y, x + width / 2, y]);
    at.events().used('stamp');
  };
  return new BoxHand(
    at,
    tool.colour || frameColour,
    ([left, top, right, bottom]) => lay((left + right) / 2, (top + bottom) / 2, Math.round(right - left)),
    leastDragged,
    ({ x, y }) => lay(x, y, tool.width),
  );
}
