import { i18n } from '@lingui/core';
import { generateMessageId } from '@lingui/message-utils/generateMessageId';
import { numberWords } from './language';

/** What Core and the server say a sentence by: its English pattern with numbered places, and what stands in them. */
export interface SentenceParts {
  pattern?: string;
  values?: readonly (string | number)[];
}

/** A sentence of Core's or the server's in the person's language; in English as it came where no catalogue knows it. */
export function sentenceIn(english: string, { pattern, values = [] }: SentenceParts): string {
  const id = pattern ? generateMessageId(pattern) : '';
  if (!id || !Object.hasOwn(i18n.messages, id)) return english;
  const shown = values.map((value) => (typeof value === 'number' ? numberWords(value) : value));
  return i18n._(id, Object.fromEntries(shown.map((value, i) => [i, value])));
}

/** The same, of what Core tells a script as one text: the English words, and in a last line what they consist of. */
export function sentenceTold(text: string): string {
  const parted = text.lastIndexOf('\n{"pattern":');
  if (parted < 0) return text.split('\n')[0]!;
  return sentenceIn(text.slice(0, parted), JSON.parse(text.slice(parted + 1)) as SentenceParts);
}
