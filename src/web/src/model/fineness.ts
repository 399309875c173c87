/** How finely pictures are put into files that are taken out, dots an inch: one setting on this device. */
export const finenesses = [150, 300, 600] as const;
export type Fineness = (typeof finenesses)[number];

const key = 'quill.dots';
const usual = 300;

export function fineness(): Fineness {
  const kept = Number(localStorage.getItem(key));
  return finenesses.find((one) => one === kept) ?? usual;
}

export function setFineness(dots: Fineness): void {
  localStorage.setItem(key, String(dots));
}

/** The address of a file that the server makes, as finely as is wished. */
export const finely = (path: string): string => `${path}${path.includes('?') ? '&' : '?'}dots=${fineness()}`;
