/** In what lengths are typed and shown: one setting for the whole application on this device. */
export type LengthUnit = 'mm' | 'in';

const key = 'quill.unit';

export function lengthUnit(): LengthUnit {
  return localStorage.getItem(key) === 'in' ? 'in' : 'mm';
}

export function setLengthUnit(unit: LengthUnit): void {
  localStorage.setItem(key, unit);
}
