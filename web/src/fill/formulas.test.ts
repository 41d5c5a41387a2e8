import { CompletionContext } from '@codemirror/autocomplete';
import { EditorState } from '@codemirror/state';
import { describe, expect, it } from 'vitest';
import type { FunctionHelp } from '../api/types';
import { complete, formulaWords } from './formulas';

const FUNCTIONS: FunctionHelp[] = [
  {
    name: 'UPPER',
    group: 'Text',
    signature: 'text',
    says: 'in capitals',
    ours: false,
    examples: [{ formula: 'UPPER("a")', gives: 'A' }],
  },
];
const COLUMNS = ['Boat name', 'Size [m]'];

function at(text: string, explicit = false) {
  const context = new CompletionContext(EditorState.create({ doc: text }), text.length, explicit);
  return complete(context, COLUMNS, FUNCTIONS);
}

describe('completion', () => {
  it('offers columns behind a bracket, quoted as the language wants it', () => {
    const found = at('UPPER([Bo');
    expect(found?.from).toBe(6);
    expect(found?.options.map((o) => o.label)).toEqual(['[Boat name]', '[Size [m]]]']);
  });

  it('offers functions with what they take, and columns by their names', () => {
    const found = at('1 & UP');
    expect(found?.from).toBe(4);
    expect(found?.options[0]).toMatchObject({ label: 'UPPER', detail: '(text)' });
    expect(found?.options[1]).toMatchObject({ label: 'Boat name', apply: '[Boat name]' });
  });

  it('keeps quiet where nothing is begun, unless it is asked', () => {
    expect(at('1 + ')).toBeNull();
    expect(at('1 + ', true)?.options).toHaveLength(3);
  });
});

describe('the words of a formula', () => {
  function kinds(text: string): (string | null)[] {
    const found: (string | null)[] = [];
    let rest = text;
    while (rest) {
      let eaten = 0;
      const stream = {
        eatSpace: () => ((eaten = /^\s*/.exec(rest)![0].length), eaten > 0),
        match: (pattern: RegExp) => {
          const m = pattern.exec(rest);
          if (m) eaten = m[0].length;
          return m;
        },
        next: () => (eaten = 1),
      };
      const kind = formulaWords.token(stream as never, null);
      if (rest.slice(0, eaten).trim()) found.push(kind);
      rest = rest.slice(eaten);
    }
    return found;
  }

  it('are columns, texts, numbers, functions and signs', () => {
    expect(kinds('UPPER([Size [m]]]) & "a""b" + 1.5E3')).toEqual([
      'keyword',
      null,
      'variableName',
      null,
      null,
      'string',
      null,
      'number',
    ]);
    expect(kinds('TRUE')).toEqual(['bool']);
  });
});
