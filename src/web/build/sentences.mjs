// Takes out of C# the sentences that Core and the server may answer with: every interpolated string that begins as a sentence and ends as one. Elsewhere such
// strings are not turned into one, so that a sentence cannot be forgotten: CalmQuill.Core/Words/Sentence.cs says more. What is thrown for developers is left out.
import { generateMessageId } from '@lingui/message-utils/generateMessageId';

/** Finds `$"…"` in C#, passing over comments and other strings. Yields the pattern with numbered places, and the line. */
export function* patternsOf(code) {
  let line = 1;
  for (let i = 0; i < code.length; i++) {
    if (code[i] === '\n') line++;
    else if (code.startsWith('//', i)) i = ending(code, '\n', i) - 1;
    else if (code.startsWith('"""', i)) i = after(code, '"""', i + 3) - 1;
    else if (code[i] === "'") i = plain(code, i, "'");
    else if (code.startsWith('$"', i) && code[i + 2] !== '"') {
      const { pattern, end } = interpolated(code, i + 2);
      if (isSentence(pattern) && !isForDevelopers(code.slice(Math.max(0, i - 80), i))) yield { pattern, line };
      line += code.slice(i, end).split('\n').length - 1;
      i = end;
    } else if (code[i] === '"') i = plain(code, i, '"');
  }
}

const isSentence = (pattern) => /^(“?\p{Lu}|\{0\}).*[.?!]$/su.test(pattern) && pattern.includes(' ');

/** What stands before the string: it is made into an exception that no person reads. */
const isForDevelopers = (before) => /(?<!Sentence|PrintBudget|Hub|Formula)Exception\(\s*$/.test(before);

const ending = (code, sign, from) => (code.indexOf(sign, from) < 0 ? code.length : code.indexOf(sign, from));
const after = (code, sign, from) => ending(code, sign, from) + sign.length;

/** The end of a string or character without places. */
function plain(code, start, quote) {
  for (let i = start + 1; i < code.length; i++) {
    if (code[i] === '\\') i++;
    else if (code[i] === quote || code[i] === '\n') return i;
  }
  return code.length;
}

/** Reads an interpolated string from behind its opening quote: `{expression:format}` becomes `{0}`, doubled braces one that ICU takes as written. */
function interpolated(code, start) {
  let pattern = '';
  let places = 0;
  for (let i = start; i < code.length; i++) {
    const sign = code[i];
    if (sign === '\\') pattern += JSON.parse(`"${sign}${code[++i]}"`);
    else if (sign === '"') return { pattern, end: i };
    else if (sign === '{') {
      pattern += `{${places++}}`;
      for (let depth = 1; depth > 0;) {
        i++;
        if (code[i] === '"') i = plain(code, i, '"');
        else if (code[i] === '{') depth++;
        else if (code[i] === '}') depth--;
      }
    } else pattern += sign;
  }
  throw new Error('An interpolated string has no end.');
}

/** The extractor: what is found has the same kind of name as what the front end says itself. */
export const sentences = {
  match: (file) => file.endsWith('.cs'),
  extract(file, code, found) {
    for (const { pattern, line } of patternsOf(code))
      found({ id: generateMessageId(pattern), message: pattern, origin: [file, line] });
  },
};
