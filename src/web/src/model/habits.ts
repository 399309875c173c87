import type { LengthUnit } from './units';

/** What pen and finger do, a person's own choice. */
export interface Habits {
  finger: 'scroll' | 'erase' | 'select' | 'write' | 'nothing';
  /** Two fingers tapping undo, three redo. */
  taps: boolean;
  /** The tool that the pen's button takes up, by name. */
  button: string;
  /** Whether the side button works while it is held; else it changes tools. */
  buttonHeld: boolean;
  tail: string;
  leftHanded: boolean;
  /** How long a pause makes a shape come out true, milliseconds; 0 for never. */
  tidyAfter: number;
  /** How large what is meant as a shape is at least when the pen rests, 0.01 mm. */
  tidyLeast: number;
  /** How near ends are joined, 0.01 mm; 0 for never. */
  join: number;
  /** What meets the paper's own lines. */
  joinPrinted: JoinPrinted;
  scratch: boolean;
  dimPaper: boolean;
  /** Whether addresses, days and the like among typed words are underlined, and offer what can be done with them. */
  seesWords: boolean;
  /** Nudge by an arrow key, 0.01 mm. */
  nudge: number;
  /** The tools that stand in the tray, by name, in order; until they are chosen, the usual ones. */
  inTray?: string[];
  /** Whether single letters are keys. */
  letterKeys: boolean;
  /** Whether the first steps were put away. */
  stepsPutAway: boolean;
  /** In what lengths are typed and shown; as long as it was not chosen, as it is on the device. */
  unit?: LengthUnit;
  /** The first day of the week. */
  week: 'monday' | 'sunday';
  /** The time zone in which times are told, by its IANA name; empty for the device's own. */
  zone: string;
}

const printedNumbers = { never: 0, straight: 1, all: 2 } as const;

export type JoinPrinted = keyof typeof printedNumbers;

/** As Core counts them. */
export function joinPrintedNumber({ joinPrinted }: Habits): number {
  return printedNumbers[joinPrinted] ?? printedNumbers.straight;
}

export const usualHabits: Habits = {
  finger: 'scroll',
  taps: true,
  button: 'eraser',
  buttonHeld: true,
  tail: 'eraser',
  leftHanded: false,
  tidyAfter: 650,
  tidyLeast: 1500,
  join: 250,
  joinPrinted: 'straight',
  scratch: false,
  dimPaper: false,
  seesWords: true,
  nudge: 100,
  letterKeys: true,
  stepsPutAway: false,
  week: 'monday',
  zone: '',
};
