import type { Completion, CompletionContext, CompletionResult } from '@codemirror/autocomplete';
import { HighlightStyle, type StreamParser } from '@codemirror/language';
import { tags } from '@lezer/highlight';
import type { FunctionHelp } from '../api/types';
import { bracket } from './origins';

/** The words of a formula, for colouring. */
export const formulaWords: StreamParser<null> = {
  name: 'formula',
  startState: () => null,
  token(stream) {
    if (stream.eatSpace()) return null;
    if (stream.match(/^"(?:[^"]|"")*"?/)) return 'string';
    if (stream.match(/^\[(?:[^\]]|\]\])*\]?/)) return 'variableName';
    if (stream.match(/^\d*\.?\d+(?:[eE][+-]?\d+)?/)) return 'number';
    if (stream.match(/^(?:TRUE|FALSE)\b/i)) return 'bool';
    if (stream.match(/^[A-Za-z][\w.]*(?=\s*\()/)) return 'keyword';
    stream.next();
    return null;
  },
};

export const highlighting = HighlightStyle.define([
  { tag: tags.variableName, color: 'var(--ink)', backgroundColor: 'var(--zest-lit)' },
  { tag: tags.string, color: 'var(--new)' },
  { tag: tags.number, color: 'var(--chg)' },
  { tag: tags.bool, color: 'var(--chg)' },
  { tag: tags.keyword, fontWeight: '650' },
]);

/** Columns behind a bracket, functions for any other word. */
export function complete(
  context: CompletionContext,
  columns: string[],
  functions: FunctionHelp[],
): CompletionResult | null {
  const column = context.matchBefore(/\[[^\]]*$/);
  if (column) {
    const closed = context.state.sliceDoc(context.pos, context.pos + 1) === ']';
    return {
      from: column.from,
      to: closed ? context.pos + 1 : context.pos,
      options: columns.map((name) => ({ label: bracket(name), type: 'variable' })),
      validFor: /^\[[^\]]*$/,
    };
  }
  const word = context.matchBefore(/[A-Za-z][\w.]*/);
  if (!word && !context.explicit) return null;
  return {
    from: word?.from ?? context.pos,
    options: [
      ...functions.map((f) => functionOption(f)),
      ...columns.map((name) => ({ label: name, apply: bracket(name), detail: 'column' })),
    ],
    validFor: /^[\w.]*$/,
  };
}

function functionOption(f: FunctionHelp): Completion {
  return {
    label: f.name,
    detail: `(${f.signature})`,
    info: `${f.says}. ${f.examples.map((e) => `${e.formula} gives ${e.gives}`).join('; ')}`,
    apply: (view, _, from, to) => {
      const closed = view.state.sliceDoc(to, to + 1) === '(';
      view.dispatch({
        changes: { from, to, insert: closed ? f.name : `${f.name}()` },
        selection: { anchor: from + f.name.length + (f.signature || closed ? 1 : 2) },
      });
    },
  };
}
