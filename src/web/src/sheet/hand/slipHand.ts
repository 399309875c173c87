import { say } from '../../ui/saying';
import type { Area } from '../../model/drawing';
import { sentenceOf } from '../../core/runtime';
import { BoxHand } from './boxHand';
import type { Hand, Workplace } from './hand';
import type { Sample } from './penInput';

/** What is dragged less far, 0.01 mm, is a press, and lays down a slip of this size. */
const leastDragged = 800;
const usual = { width: 7000, height: 5000 };

/** Lays a slip down: where it is pressed, or as large as it is dragged. Its colour is rrggbbaa. */
export function slipHand(at: Workplace, colour: string): Hand {
  const lay = (area: Area) => {
    const { core, page, layer } = at;
    const [left, top, right, bottom] = area.map(Math.round) as [number, number, number, number];
    try {
      page.performTogether((handle, now) =>
        core.ThingBridge.AddSlip(handle, left, top, right - left, bottom - top, colour, layer(), now),
      );
    } catch (problem) {
      say(sentenceOf(problem));
      return;
    }
    at.wrote(area);
    at.events().used('slip');
    at.events().taken({ items: core.ThingBridge.Made(), area });
  };
  return new BoxHand(at, `#${colour}`, lay, leastDragged, (sample) => lay(around(sample, at.sheet())));
}

/** A slip of the usual size around a place, on the sheet as far as that reaches. */
function around({ x, y }: Sample, [left, top, right, bottom]: Area): Area {
  const at = {
    x: Math.max(left, Math.min(x - usual.width / 2, right - usual.width)),
    y: Math.max(top, Math.min(y - usual.height / 2, bottom - usual.height)),
  };
  return [at.x, at.y, at.x + usual.width, at.y + usual.height];
}
