import { t } from '@lingui/core/macro';
import { lengthWords } from '../words/language';
export type PenKind = 'ball' | 'fountain' | 'brush' | 'pencil' | 'calligraphy' | 'highlighter';
export type LineStyle = 'solid' | 'dashed' | 'dotted';

/** What the tray holds in one of its places. */
export interface Pen {
  kind: PenKind;
  /** Width of the line, 0.01 mm. */
  width: number;
  /** #rrggbb. */
  colour: string;
  /** 0 to 1. */
  opacity: number;
  line: LineStyle;
  /** A highlighter's end. */
  square: boolean;
  /** A flat nib's direction, degrees. */
  angle: number;
  /** How pressure is taken, −100 heavy to 100 light. */
  response: number;
  /** 0 as the hand did it, to 100. */
  stabilising: number;
  /** Whether a highlighter draws straight lines. */
  straight: boolean;
}

export const penKindNumbers: Record<PenKind, number> = {
  ball: 1,
  fountain: 2,
  brush: 3,
  pencil: 4,
  calligraphy: 5,
  highlighter: 6,
};
export const penNames: Record<PenKind, string> = {
  ball: t`Ball pen`,
  fountain: t`Fountain pen`,
  brush: t`Brush`,
  pencil: t`Pencil`,
  calligraphy: t`Calligraphy pen`,
  highlighter: t`Highlighter`,
};
export const penKinds = Object.keys(penNames) as PenKind[];
export const lineNumbers: Record<LineStyle, number> = { solid: 0, dashed: 1, dotted: 2 };

/** A highlighter never fully covers; Core refuses more. */
export const mostHighlighterOpacity = 0.58;

export const inks = [
  { name: t`Black`, colour: '#22302e' },
  { name: t`Spruce`, colour: '#1f3d3a' },
  { name: t`Madder`, colour: '#b4533c' },
  { name: t`Sky`, colour: '#4f7388' },
  { name: t`Plum`, colour: '#6e4a63' },
  { name: t`Gold`, colour: '#c08a2e' },
  { name: t`Lichen`, colour: '#7c8a4b' },
] as const;

const plain: Omit<Pen, 'kind' | 'width' | 'colour'> = {
  opacity: 1,
  line: 'solid',
  square: false,
  angle: 0,
  response: 0,
  stabilising: 0,
  straight: false,
};

/** What a pen of a kind is like when it is new. */
export function newPen(kind: PenKind, colour = '#22302e'): Pen {
  const width = { ball: 40, fountain: 55, brush: 160, pencil: 50, calligraphy: 140, highlighter: 450 }[kind];
  return {
    ...plain,
    kind,
    width,
    colour,
    ...(kind === 'calligraphy' ? { angle: 140 } : {}),
    ...(kind === 'highlighter' ? { opacity: 0.4, square: true } : {}),
  };
}

export const firstTray: Pen[] = [
  newPen('ball'),
  { ...newPen('fountain', '#1f3d3a') },
  newPen('ball', '#b4533c'),
  { ...newPen('fountain', '#4f7388'), width: 70 },
  { ...newPen('pencil', '#22302e') },
  newPen('highlighter', '#e3b23c'),
];

export const mostPens = 24;

/** Pens as the short text that is kept: lists of numbers, the colour without its sign. */
export function writeTray(tray: readonly Pen[]): string {
  return JSON.stringify(
    tray.map((pen) => [
      penKindNumbers[pen.kind],
      pen.width,
      pen.colour.slice(1),
      Math.round(pen.opacity * 100),
      lineNumbers[pen.line],
      pen.square ? 1 : 0,
      pen.angle,
      pen.response,
      pen.stabilising,
      pen.straight ? 1 : 0,
    ]),
  );
}

export function readTray(text: string | undefined): Pen[] | undefined {
  try {
    const rows = JSON.parse(text ?? '') as (number | string)[][];
    const pens = rows
      .slice(0, mostPens)
      .map(([kind, width, colour, opacity, line, square, angle, response, stabilising, straight]): Pen => ({
        kind: penKinds[Number(kind) - 1] ?? 'ball',
        width: Number(width),
        colour: `#${colour}`,
        opacity: Number(opacity) / 100,
        line: (Object.keys(lineNumbers) as LineStyle[])[Number(line)] ?? 'solid',
        square: square === 1,
        angle: Number(angle),
        response: Number(response),
        stabilising: Number(stabilising),
        straight: straight === 1,
      }));
    return pens.length > 0 &&
      pens.every((pen) => /^#[0-9a-f]{6}$/.test(pen.colour) && pen.width >= 10 && pen.width <= 2000)
      ? pens
      : undefined;
  } catch {
    return undefined;
  }
}

/** A pen as the numbers that Core takes. */
export function penNumbers(pen: Pen): number[] {
  return [
    penKindNumbers[pen.kind],
    pen.width,
    rgbaOf(pen) | 0,
    lineNumbers[pen.line],
    pen.square ? 1 : 0,
    pen.kind === 'calligraphy' ? pen.angle : 0,
    pen.response,
  ];
}

/** The ink's colour with its opacity, 0xRRGGBBAA. */
export function rgbaOf(pen: Pick<Pen, 'kind' | 'colour' | 'opacity'>): number {
  const opacity = pen.kind === 'highlighter' ? Math.min(pen.opacity, mostHighlighterOpacity) : pen.opacity;
  return toRgba(pen.colour, opacity);
}

export function toRgba(colour: string, opacity = 1): number {
  return Number.parseInt(colour.slice(1, 7), 16) * 256 + Math.round(opacity * 255);
}

export function describePen(pen: Pen): string {
  const ink = inks.find((one) => one.colour === pen.colour)?.name.toLowerCase() ?? pen.colour;
  return `${penNames[pen.kind]}, ${lengthWords(pen.width)}, ${ink}`;
}
