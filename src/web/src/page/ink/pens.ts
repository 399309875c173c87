export type PenKind = 'ball' | 'fountain';

/** What the tray holds in one of its places. */
export interface Pen {
  kind: PenKind;
  /** Width of the line, 0.01 mm. */
  width: number;
  /** #rrggbb. */
  colour: string;
}

export const penKindNumbers: Record<PenKind, number> = { ball: 1, fountain: 2 };
export const penNames: Record<PenKind, string> = { ball: 'Ball pen', fountain: 'Fountain pen' };

export const inks = [
  { name: 'Black', colour: '#22302e' },
  { name: 'Spruce', colour: '#1f3d3a' },
  { name: 'Madder', colour: '#b4533c' },
  { name: 'Sky', colour: '#4f7388' },
  { name: 'Plum', colour: '#6e4a63' },
  { name: 'Gold', colour: '#c08a2e' },
  { name: 'Lichen', colour: '#7c8a4b' },
] as const;

const firstTray: Pen[] = [
  { kind: 'ball', width: 40, colour: '#22302e' },
  { kind: 'fountain', width: 55, colour: '#1f3d3a' },
  { kind: 'ball', width: 40, colour: '#b4533c' },
  { kind: 'fountain', width: 70, colour: '#4f7388' },
  { kind: 'ball', width: 60, colour: '#6e4a63' },
];

const key = (person: string) => `quill.tray.${person}`;

export function loadTray(person: string): Pen[] {
  try {
    const kept = JSON.parse(localStorage.getItem(key(person)) ?? '') as Pen[];
    if (Array.isArray(kept) && kept.length === firstTray.length && kept.every((pen) => pen.kind in penKindNumbers)) return kept;
  } catch {
    // Nothing kept yet.
  }
  return firstTray;
}

export function saveTray(person: string, tray: Pen[]): void {
  localStorage.setItem(key(person), JSON.stringify(tray));
}

/** Half the line's width in 0.01 mm at a pressure of 0–1023, close to Core's; only for ink that is still wet. */
export function wetRadius(pen: Pen, pressure: number): number {
  if (pen.kind === 'ball') return pen.width / 2;
  const p = pressure / 1023;
  return (pen.width / 2) * (0.35 + 0.9 * p * (2 - p));
}

export function toRgba(colour: string): number {
  return Number.parseInt(`${colour.slice(1)}ff`, 16);
}
