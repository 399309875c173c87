import type { Offer } from '../hand/tool';

/** What unfolds its panel, and folds it again. */
export function unfolding(name: string): Pick<Offer, 'name' | 'isOn' | 'press'> {
  return {
    name,
    isOn: (tools) => tools.open === name,
    press: (tools) => tools.unfold(tools.open === name ? undefined : name),
  };
}

/** What is turned on, and off again. */
export function turning(name: string): Pick<Offer, 'name' | 'isOn' | 'press'> {
  return {
    name,
    isOn: (tools) => tools.isOn(name),
    press: (tools) => tools.turn(name, !tools.isOn(name)),
  };
}
