import assert from 'node:assert/strict';
import { test } from 'node:test';
import { generateMessageId } from '@lingui/message-utils/generateMessageId';
import { patternsOf, sentences } from './sentences.mjs';

const found = (code) => [...patternsOf(code)];

test('values become numbered places, with or without a format, and whatever strings stand in them', () => {
  assert.deepEqual(
    found('return $"At most {Most:N0} things in {(name.Length > 40 ? "{a}" : name)} at once.";').map(
      (one) => one.pattern,
    ),
    ['At most {0} things in {1} at once.'],
  );
});

test('what is no interpolated string, or no sentence, or stands in a comment, is passed over', () => {
  assert.deepEqual(
    found('Log("It broke."); Key($"tag-{id}"); // $"Not this one."\n var c = \'"\'; X($"{a}-{b}");'),
    [],
  );
  assert.deepEqual(found('var raw = """ $"Nor this one." """;'), []);
});

test('what is thrown for developers is left out, what is thrown for a person is not', () => {
  assert.deepEqual(found('throw new InvalidOperationException(\n    $"No codec for {kind}."\n);'), []);
  assert.equal(found('throw new SentenceException($"Sub-pages go two levels deep.");').length, 1);
});

test('escaped signs are read as C# reads them, and the line is that of the string', () => {
  assert.deepEqual(found('var a = "x\\"y";\n\nreturn $"She said \\"no\\" to this.";'), [
    { pattern: 'She said "no" to this.', line: 3 },
  ]);
});

test('a sentence is known by the same name as if the front end had said it', () => {
  const names = [];
  sentences.extract('Names.cs', 'return $"A name has at most {Most} characters.";', ({ id, message }) =>
    names.push([id, message]),
  );
  assert.deepEqual(names, [
    [generateMessageId('A name has at most {0} characters.'), 'A name has at most {0} characters.'],
  ]);
  assert.ok(sentences.match('Core/Names.cs') && !sentences.match('names.ts'));
});
