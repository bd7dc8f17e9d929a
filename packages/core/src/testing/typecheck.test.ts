import type { EmittedProject } from '../emit/emitted.ts';
import { typeErrors } from './typecheck.ts';

const project = (text: string): EmittedProject => ({
  files: [{ path: 'src/App.tsx', text }],
  fileOfScreen: new Map(),
});

test('errors are told with the project, the file, the line and what stands there', () => {
  expect(
    typeErrors([
      project('export const ok = 1;\n'),
      project(
        "import { useState } from 'react';\nexport const App = () => <p title={1}>{useState(0)[0]}</p>;\n",
      ),
    ]),
  ).toEqual([
    "1/src/App.tsx:2: Type 'number' is not assignable to type 'string'.: export const App = () => <p title={1}>{useState(0)[0]}</p>;",
  ]);
});
