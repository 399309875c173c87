import { t } from '@lingui/core/macro';
import { dateLocale } from './language';

/** The words by which Core calls papers and what they consist of, in the language of the interface. What is printed on a paper is another matter. */
const words: Record<string, string> = {
  'Bass tablature': t`Bass tablature`,
  Blank: t`Blank`,
  Checklist: t`Checklist`,
  Columns: t`Columns`,
  Cornell: t`Cornell`,
  Cues: t`Cues`,
  Day: t`Day`,
  Dots: t`Dots`,
  Dotted: t`Dotted`,
  'Five questions and how': t`Five questions and how`,
  'Flow of steps': t`Flow of steps`,
  Forms: t`Forms`,
  Frames: t`Frames`,
  Grids: t`Grids`,
  'Guitar tablature': t`Guitar tablature`,
  Habits: t`Habits`,
  'Habits and progress': t`Habits and progress`,
  Isometric: t`Isometric`,
  'Lab page': t`Lab page`,
  'Legal pad': t`Legal pad`,
  Lines: t`Lines`,
  Margin: t`Margin`,
  'Meeting notes': t`Meeting notes`,
  Millimetre: t`Millimetre`,
  Month: t`Month`,
  Music: t`Music`,
  'Repair sheet': t`Repair sheet`,
  Rows: t`Rows`,
  Ruled: t`Ruled`,
  Squared: t`Squared`,
  Squares: t`Squares`,
  'Staff lines': t`Staff lines`,
  Staves: t`Staves`,
  Steps: t`Steps`,
  Storyboard: t`Storyboard`,
  Strings: t`Strings`,
  Systems: t`Systems`,
  'Term plan': t`Term plan`,
  Time: t`Time`,
  Triangles: t`Triangles`,
  'Week, by hours': t`Week, by hours`,
  'Week, in boxes': t`Week, in boxes`,
  Weeks: t`Weeks`,
  Year: t`Year`,
  'Ruled, 7.1 mm': t`Ruled, 7.1 mm`,
  'Ruled narrow, 6.4 mm': t`Ruled narrow, 6.4 mm`,
  'Ruled wide, 8.7 mm': t`Ruled wide, 8.7 mm`,
  'Two columns': t`Two columns`,
  'Squared, 5 mm': t`Squared, 5 mm`,
  'Squared, 4 mm': t`Squared, 4 mm`,
  'Squared, 7 mm': t`Squared, 7 mm`,
  'Squared, 10 mm': t`Squared, 10 mm`,
  Piano: t`Piano`,
};

/** What the designs of covers are called. */
export const coverWords: Record<string, string> = {
  rings: t`rings`,
  dots: t`dots`,
  waves: t`waves`,
  rays: t`rays`,
  lattice: t`lattice`,
  bands: t`bands`,
  gears: t`gears`,
  steps: t`steps`,
  leaves: t`leaves`,
  weave: t`weave`,
  label: t`label`,
  hatch: t`hatch`,
  stars: t`stars`,
  plain: t`plain`,
};

/** A word of Core's; as it came where it is new. */
export const coreWord = (word: string): string => words[word] ?? word;

/** The same within a sentence: in English it begins small. */
export const within = (word: string): string => (dateLocale().startsWith('en') ? word.toLowerCase() : word);
