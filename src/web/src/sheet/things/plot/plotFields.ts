/** The fields of a plot by their numbers in Core. */
export const range = 27;
export const axes = 28;
export const curves = [30, 31, 32, 33, 34, 35] as const;
export const data = [36, 37, 38] as const;
export const table = 45;

/** The inks that curves and points have, one after the other. */
export const inks = ['1f5f8b', 'b4533c', '7c8a4b', '6e4a63', 'c08a2e', '22302e'] as const;
export const inkOf = (at: number): string => `${inks[at % inks.length]}ff`;

/** What a field of a curve says. */
export const readCurve = (text: string): { colour: string; typed: string } | undefined =>
  text.length > 9 ? { colour: text.slice(0, 8), typed: text.slice(9) } : undefined;

/** What a field of points says: the rows as one types them. */
export function readData(text: string): { colour: string; fit: string; rows: string } | undefined {
  const [colour, fit, ...numbers] = text.split(' ');
  if (!colour || !fit) return undefined;
  const rows: string[] = [];
  for (let i = 0; i + 1 < numbers.length; i += 2) rows.push(`${numbers[i]} ${numbers[i + 1]}`);
  return { colour, fit, rows: rows.join('\n') };
}
