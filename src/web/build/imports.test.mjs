import assert from 'node:assert/strict';
import { test } from 'node:test';
import { wrongImports } from './imports.mjs';

const folders = ['low', 'low/deep', 'high', ''];
const check = (sources) => wrongImports(folders, new Map(Object.entries(sources)));

test('a folder may import from itself and from those before it', () =>
  assert.deepEqual(
    check({
      'low/a.ts': "import { b } from './b'; import React from 'react';",
      'low/deep/c.tsx': "import { a } from '../a'; export const C = () => <p>{a}</p>;",
      'high/d.ts': "import type { C } from '../low/deep/c'; export * from '../low/a';",
      'main.tsx': "await import('./high/d');",
    }),
    [],
  ));

for (const [way, text] of Object.entries({
  'a value': "import { d } from '../high/d';",
  'a type': "import type { D } from '../high/d';",
  'a side effect': "import '../high/d';",
  'a dynamic import': "const d = () => import('../high/d');",
  'an export from elsewhere': "export { d } from '../high/d';",
  'an export of all': "export * from '../high/d';",
}))
  test(`${way} from a later folder is refused`, () =>
    assert.match(check({ 'low/a.ts': text }).join(), /low\/a\.ts: imports \.\.\/high\/d/));

test('what lies in a folder of like ones knows what is before them, and none of the others', () => {
  const order = ['low', 'each/*', 'high'];
  const sources = {
    'low/a.ts': '',
    'each/one/a.ts': "import '../../low/a';",
    'each/two/a.ts': "import '../one/a';",
    'high/a.ts': "import '../each/one/a';",
  };
  const problems = wrongImports(order, new Map(Object.entries(sources)));
  assert.equal(problems.length, 1);
  assert.match(problems[0], /each\/two\/a\.ts: imports \.\.\/one\/a/);
});

test('a folder that nobody put in order is named', () =>
  assert.match(check({ 'new/a.ts': '' }).join(), /“new” has no place/));
