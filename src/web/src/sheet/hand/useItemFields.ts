import { sentenceOf } from '../../core/runtime';
import { useWorkspace } from '../../data/useWorkspace';
import type { OpenDocument } from '../../sync/openDocument';
import { say } from '../../ui/saying';

/** The field of words that say how a thing looks and reckons, by its number in Core. */
export const showsField = 29;

/** Writes fields of a thing, by their numbers in Core; what is refused is told. */
export function useItemFields(page: OpenDocument, item: string, shows: string) {
  const { core } = useWorkspace();
  const set = (field: number, value: string) => {
    try {
      page.perform((handle, now) => core.HandBridge.Set(handle, [item], [field], [value], now));
    } catch (error) {
      say(sentenceOf(error));
    }
  };
  /** What is said of how it looks, word by word. */
  const words = shows.split(' ').filter(Boolean);
  const turn = (word: string, on: boolean) =>
    set(showsField, (on ? [...words, word] : words.filter((one) => one !== word)).join(' '));
  return { set, words, turn };
}
