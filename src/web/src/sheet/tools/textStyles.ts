import { t } from '@lingui/core/macro';
import type { CSSProperties } from 'react';
import { familyOf } from '../../letters/fonts';

/** Kinds of paragraph, as Core calls them; empty for body. */
export type Style = '' | 'title' | 'heading' | 'subheading' | 'small' | 'quotation' | 'code';
export type Family = 'serif' | 'sans' | 'mono' | 'round' | 'hand';

export const styles = (): { value: Style; words: string }[] => [
  { value: '', words: t`Body` },
  { value: 'title', words: t({ message: 'Title', context: 'a kind of paragraph' }) },
  { value: 'heading', words: t`Heading` },
  { value: 'subheading', words: t`Sub-heading` },
  { value: 'quotation', words: t`Quotation` },
  { value: 'small', words: t`Small` },
  { value: 'code', words: t({ message: 'Code', context: 'a kind of paragraph' }) },
];

export const families = (): { value: Family; words: string }[] => [
  { value: 'serif', words: t`With serifs` },
  { value: 'sans', words: t`Plain` },
  { value: 'mono', words: t`Even widths` },
  { value: 'round', words: t({ message: 'Round', context: 'a typeface' }) },
  { value: 'hand', words: t`As if written` },
];

/** Height of the type of each kind of paragraph, 0.1 pt, as ParagraphStyle has it in Core. */
export const usualSize: Record<Style, number> = {
  '': 120,
  title: 240,
  heading: 180,
  subheading: 140,
  small: 90,
  quotation: 120,
  code: 100,
};

/** A word set in a kind of paragraph, small enough to stand in a list. */
export function sampleOf(style: Style, family: Family): CSSProperties {
  return {
    fontFamily: familyOf(style === 'code' ? 'mono' : family),
    fontWeight: style === 'heading' || style === 'subheading' ? 700 : 400,
    fontStyle: style === 'quotation' ? 'italic' : 'normal',
    fontSize: `${Math.min(11 + usualSize[style] / 60, 15)}px`,
  };
}
