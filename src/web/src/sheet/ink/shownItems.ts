import { type Box, meets, union } from './boxes';
import { differenceOf } from './letters';
import { areSame, type Coat, compareOrder, type InkItem } from './packet';

/** What a thing takes to paint of which next to nothing lies in the part that is painted. */
const begun = 0.15;

/** What a change of what is shown leaves to be painted. */
interface ToPaint {
  /** The box in which all is painted anew, 0.01 mm. */
  dirty: Box | undefined;
  /** What has come on top. */
  over: InkItem[];
}

/** The things that are shown of a page, in painting order. */
export class ShownItems {
  private readonly byId = new Map<string, InkItem>();
  private sorted: InkItem[] = [];
  private around: Box | undefined;

  /** All, from the back to the front, until something changes. */
  get all(): readonly InkItem[] {
    return this.sorted;
  }

  /** The box around all that is shown, or was since it was cleared; 0.01 mm. */
  get box(): Box | undefined {
    return this.around;
  }

  clear(): void {
    this.byId.clear();
    this.sorted = [];
    this.around = undefined;
  }

  find(id: string): InkItem | undefined {
    return this.byId.get(id);
  }

  /** Those of these that are shown, in painting order. */
  of(ids: readonly string[]): InkItem[] {
    const wanted = new Set(ids);
    return this.sorted.filter((item) => wanted.has(item.id));
  }

  /** The foremost at a place of which a coat has the place within its outline, and that coat's colour. */
  colourAt(x: number, y: number, isIn: (path: Path2D, x: number, y: number) => boolean): string | undefined {
    const coatAt = (item: InkItem): Coat | undefined =>
      [...item.below, item].findLast(({ path }) => isIn(path, x - item.dx, y - item.dy));
    const found = this.sorted.findLast(
      (item) =>
        x >= item.box[0] && x <= item.box[2] && y >= item.box[1] && y <= item.box[3] && coatAt(item) !== undefined,
    );
    return found && coatAt(found)?.colour;
  }

  /** Shows items otherwise; answers with the box in which something changed. */
  change(ids: ReadonlySet<string>, how: (item: InkItem) => InkItem): Box | undefined {
    let dirty: Box | undefined;
    this.sorted = this.sorted.map((item) => {
      if (!ids.has(item.id)) return item;
      const changed = how(item);
      dirty = union(union(dirty, item.box), changed.box);
      this.byId.set(item.id, changed);
      return changed;
    });
    return dirty;
  }

  /** Takes items in their present look. */
  take(packet: readonly InkItem[]): ToPaint {
    let dirty: Box | undefined;
    let reorder = false;
    const over: InkItem[] = [];
    const changed = new Set<string>();
    // What changed twice is in its last look both times.
    for (const item of new Map(packet.map((one) => [one.id, one])).values()) {
      const before = this.byId.get(item.id);
      const different = before && differenceIn(before, item);
      if (different) dirty = union(dirty, different);
      if (before) changed.add(item.id);
      if (!item.shown) {
        this.byId.delete(item.id);
        continue;
      }
      this.byId.set(item.id, item);
      this.around = union(this.around, item.box);
      if (before) {
        if (compareOrder(before.order, item.order) !== 0) reorder = true;
        continue;
      }
      const last = this.sorted[this.sorted.length - 1];
      if (last && compareOrder(last.order, item.order) > 0) {
        reorder = true;
        dirty = union(dirty, item.box);
      } else over.push(item);
      this.sorted.push(item);
    }
    if (changed.size > 0)
      this.sorted = this.sorted.flatMap((item) => (changed.has(item.id) ? (this.byId.get(item.id) ?? []) : [item]));
    if (reorder) this.sorted.sort((a, b) => compareOrder(a.order, b.order));
    return { dirty, over };
  }

  /** The box around all that shows a file. */
  boxOf(asset: string): Box | undefined {
    let around: Box | undefined;
    for (const { pictures, box } of this.sorted)
      if (pictures.some((picture) => picture.asset === asset)) around = union(around, box);
    return around;
  }

  /** How many things' worth of painting lies in a box: of one that lies there in part, that part, and what it takes to begin with it. */
  inkIn(box: Box): number {
    let sum = 0;
    for (const { box: lies } of this.sorted) {
      if (!meets(lies, box)) continue;
      const within =
        (Math.min(lies[2], box[2]) - Math.max(lies[0], box[0])) *
        (Math.min(lies[3], box[3]) - Math.max(lies[1], box[1]));
      const whole = Math.max((lies[2] - lies[0]) * (lies[3] - lies[1]), 1);
      sum += begun + (1 - begun) * Math.min(within / whole, 1);
    }
    return sum;
  }
}

/** The box in which a thing looks otherwise than before; undefined where it does not. */
function differenceIn(before: InkItem, now: InkItem): Box | undefined {
  if (!now.shown || !isButForLetters(before, now)) return union(before.box, now.box);
  let different: Box | undefined;
  for (const [i, text] of now.texts.entries()) {
    const there = before.texts === now.texts ? undefined : differenceOf(before.texts[i]!, text);
    if (there) different = union(different, there);
  }
  return different && [different[0] + now.dx, different[1] + now.dy, different[2] + now.dx, different[3] + now.dy];
}

/** Whether a thing looks the same, whatever letters are on it. */
function isButForLetters(one: InkItem, other: InkItem): boolean {
  return (
    one.path === other.path &&
    one.dx === other.dx &&
    one.dy === other.dy &&
    one.colour === other.colour &&
    one.grain === other.grain &&
    areSame(one.below, other.below) &&
    one.texts.length === other.texts.length &&
    one.pictures === other.pictures &&
    compareOrder(one.order, other.order) === 0
  );
}
