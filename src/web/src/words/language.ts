import { type Messages, i18n } from '@lingui/core';

/** The languages of the interface. */
export type Language = 'en' | 'de';

interface Spoken {
  /** What it calls itself. */
  name: string;
  /** How dates and numbers are written in it. */
  locale: string;
  dir: 'ltr' | 'rtl';
  words: () => Promise<{ messages: Messages }>;
}

export const languages: Record<Language, Spoken> = {
  en: { name: 'English', locale: 'en-GB', dir: 'ltr', words: () => import('./en.po') },
  de: { name: 'Deutsch', locale: 'de-DE', dir: 'ltr', words: () => import('./de.po') },
};

const key = 'quill.language';
let current: Language = 'en';

/** What was chosen on this device; undefined where it goes by the browser. */
export function chosenLanguage(): Language | undefined {
  const kept = localStorage.getItem(key);
  return kept && Object.hasOwn(languages, kept) ? (kept as Language) : undefined;
}

/** The words of everything that is loaded are in one language, so that another one begins the application anew. */
export function chooseLanguage(language: Language | undefined): void {
  if (language) localStorage.setItem(key, language);
  else localStorage.removeItem(key);
  location.reload();
}

/** The first of the languages that the browser's owner reads which is spoken here. */
export function languageOf(wishes: readonly string[]): Language {
  for (const wish of wishes) {
    const language = wish.toLowerCase().split('-')[0]!;
    if (Object.hasOwn(languages, language)) return language as Language;
  }
  return 'en';
}

/**
 * Loads the words of the language to speak; must be done before anything is loaded that says some. For whoever looks for words that are in no catalogue,
 * `localStorage['quill.language'] = 'marked'` puts signs round all that are in one, and lays the screen out from right to left.
 */
export async function speak(): Promise<void> {
  const marked = localStorage.getItem(key) === 'marked';
  current = chosenLanguage() ?? languageOf(marked ? [] : navigator.languages);
  const language = languages[current];
  const { messages } = await language.words();
  i18n.loadAndActivate({
    locale: current,
    locales: language.locale,
    messages: marked ? markedOf(messages) : messages,
  });
  document.documentElement.lang = current;
  document.documentElement.dir = marked ? 'rtl' : language.dir;
}

const markedOf = (messages: Messages): Messages =>
  Object.fromEntries(
    Object.entries(messages).map(([id, message]) => [
      id,
      ['⟦', ...(typeof message === 'string' ? [message] : message), '⟧'],
    ]),
  );

/** The language that is spoken. */
export const spoken = (): Language => current;

/** In what way dates and numbers are written (BCP 47). */
export const dateLocale = (): string => languages[current].locale;

/** A number as it is written: 1,234.5 or 1.234,5. */
export const numberWords = (value: number, digits = 0): string =>
  value.toLocaleString(dateLocale(), { minimumFractionDigits: digits, maximumFractionDigits: digits });

/** A length on paper, given in 0.01 mm. */
export const lengthWords = (hundredths: number, digits = 2): string => `${numberWords(hundredths / 100, digits)} mm`;

/** Some of a kind, as a list in a sentence: one, two and three. */
export const listWords = (parts: string[]): string => new Intl.ListFormat(dateLocale()).format(parts);
