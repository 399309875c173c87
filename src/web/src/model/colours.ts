/** Background classes of the palette's names, for bars and dots. */
export const fillOf: Record<string, string> = {
  spruce: 'bg-spruce',
  madder: 'bg-madder',
  sky: 'bg-sky',
  gold: 'bg-gold',
  plum: 'bg-plum',
  lichen: 'bg-lichen',
};

/** The same as colours for SVG. */
export const inkOf: Record<string, string> = {
  spruce: 'var(--color-spruce)',
  madder: 'var(--color-madder)',
  sky: 'var(--color-sky)',
  gold: '#a3731d',
  plum: 'var(--color-plum)',
  lichen: '#68753c',
};

/** The same behind a name in white, which is read on each of them (WCAG 2.2: 4.5 to 1). */
export const signOf: Record<string, string> = { ...inkOf, gold: '#8a5f14' };

/** Plain values, for what Core draws. Gold and lichen are darker than in the palette, so that a title on them is read. */
export const hexOf: Record<string, string> = {
  spruce: '#1f3d3a',
  madder: '#b4533c',
  sky: '#4f7388',
  gold: '#a3731d',
  plum: '#6e4a63',
  lichen: '#68753c',
};
