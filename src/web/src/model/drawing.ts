import { t } from '@lingui/core/macro';
import { coreWord, within } from '../words/coreWords';
import { dateLocale } from '../words/language';
import type { Core } from '../core/runtime';

export type Area = readonly [left: number, top: number, right: number, bottom: number];

/** A filled path, a line, or a picture; lengths are 0.01 mm. */
export interface Piece {
  path?: string;
  fill?: string;
  line?: string;
  width?: number;
  dash?: [number, number];
  picture?: string;
  area?: Area;
}

/** A part of a sheet that leads to a page. */
export interface PrintedLink {
  area: Area;
  page: string;
  /** Which page of a planner: `day/2026-10-08`. */
  target: string;
}

/** What is printed on a sheet, as Core lays it out. */
export interface Drawing {
  sheet: Area;
  ground: string;
  own?: string;
  pieces: Piece[];
  links: PrintedLink[];
}

const kept = new Map<string, Drawing>();
const mostKept = 200;

/** A paper without ink or dates; the same text gives the same drawing. */
export function drawPaper(core: Core, paper: string): Drawing {
  return remember(paper, () => core.PaperBridge.Draw(paper, 0, 0, '', ''));
}

/** A cover's pattern. */
export function drawCover(core: Core, design: string, colour: string, name: string): Drawing {
  return remember(`cover ${design} ${colour} ${name}`, () => core.PaperBridge.Cover(design, colour, name));
}

function remember(key: string, draw: () => string): Drawing {
  let drawing = kept.get(key);
  if (!drawing) {
    drawing = JSON.parse(draw()) as Drawing;
    if (kept.size >= mostKept) kept.delete(kept.keys().next().value!);
    kept.set(key, drawing);
  }
  return drawing;
}

/** A paper's parts as Core reads them from its text. */
export interface Paper {
  size: string;
  across: boolean;
  design: string;
  spacing: number;
  growth: 'none' | 'down' | 'all';
  head?: number;
  margin?: number;
  count?: number;
  weight?: number;
  tint?: string;
  lines?: string;
  plain: boolean;
  paired: boolean;
  headed: boolean;
  grain: boolean;
  own?: string;
  /** Where the first line and the margin lie unless they are set, 0.01 mm. */
  usualHead: number;
  usualMargin: number;
  width: number;
  height: number;
  colour: string;
}

/** Writes the text form; Core says whether it may be so. */
export function writePaper(paper: Omit<Paper, 'width' | 'height' | 'colour' | 'usualHead' | 'usualMargin'>): string {
  const parts = [`${paper.size}${paper.across ? '.across' : ''}`, paper.design, String(Math.round(paper.spacing))];
  if (paper.growth !== 'none') parts.push(paper.growth === 'down' ? 'down' : 'around');
  for (const name of ['head', 'margin', 'count'] as const)
    if (paper[name] !== undefined) parts.push(`${name}.${Math.round(paper[name])}`);
  if (paper.tint) parts.push(`tint.${paper.tint.slice(1)}`);
  if (paper.lines) parts.push(`lines.${paper.lines.slice(1)}`);
  if (paper.weight !== undefined) parts.push(`weight.${Math.round(paper.weight)}`);
  for (const name of ['plain', 'paired', 'headed', 'grain'] as const) if (paper[name]) parts.push(name);
  if (paper.own) parts.push(`own.${paper.own.replaceAll('-', '')}`);
  return parts.join('-');
}

/** Whether a paper's sheet grows with its ink. */
export function grows(paper: string): boolean {
  return /-(down|around)(-|$)/.test(paper);
}

export interface Design {
  name: string;
  words: string;
  group: string;
  spacing: number;
  spacingWords: string;
  countWords: string;
  usualCount: number;
  mostCount: number;
  hasWords: boolean;
  hasHead: boolean;
  /** What its margin is called; empty for none. */
  marginWords: string;
  canBeHeaded: boolean;
  across: boolean;
  tint: string;
}

export interface PaperChoices {
  designs: Design[];
  ready: { words: string; design: string }[];
  sizes: { name: string; width: number; height: number; across: boolean }[];
  covers: string[];
}

let choices: PaperChoices | undefined;

export function paperChoices(core: Core): PaperChoices {
  return (choices ??= inOurWords(JSON.parse(core.PaperBridge.Choices()) as PaperChoices));
}

function inOurWords(given: PaperChoices): PaperChoices {
  return {
    ...given,
    designs: given.designs.map((design) => ({
      ...design,
      words: coreWord(design.words),
      group: coreWord(design.group),
      spacingWords: coreWord(design.spacingWords),
      countWords: coreWord(design.countWords),
      marginWords: coreWord(design.marginWords),
    })),
    ready: given.ready.map((one) => ({ ...one, words: coreWord(one.words) })),
  };
}

const sizeWords: Record<string, string> = {
  a3: 'A3',
  a4: 'A4',
  a5: 'A5',
  a6: 'A6',
  b5: 'B5',
  letter: t`Letter`,
  legal: t`Legal`,
  tabloid: t`Tabloid`,
  wide: t`Screen 16:9`,
  screen: t`Screen 4:3`,
  square: t`Square`,
};

/** What a size is called; a free one by its measures. */
export function wordsOfSize(size: string): string {
  return (
    sizeWords[size] ??
    size
      .split('x')
      .map((edge) => (Number(edge) / 100).toFixed(0))
      .join(' × ')
      .concat(' mm')
  );
}

/** A paper in words: “A4, ruled, 7.1 mm”. */
export function wordsOfPaper(core: Core, text: string): string {
  let paper: Paper;
  try {
    paper = JSON.parse(core.PaperBridge.Read(text)) as Paper;
  } catch {
    return t`A4, ruled`;
  }
  const { designs } = paperChoices(core);
  const design = designs.find((one) => one.name === paper.design)!;
  const spacing =
    design.spacingWords && !design.countWords ? `, ${(paper.spacing / 100).toLocaleString(dateLocale())} mm` : '';
  const size = wordsOfSize(paper.size);
  return [
    paper.across ? t`${size} across` : size,
    paper.own ? t`own paper` : `${within(design.words)}${spacing}`,
    paper.growth !== 'none' && t`endless`,
  ]
    .filter(Boolean)
    .join(', ');
}
