<script lang="ts">
  // A formula being written: names complete themselves, mistakes are marked where they are, and the
  // value for the record in hand stands beside it.
  import { closeBrackets, autocompletion, completionKeymap } from '@codemirror/autocomplete';
  import { defaultKeymap, history, historyKeymap } from '@codemirror/commands';
  import { bracketMatching, StreamLanguage, syntaxHighlighting } from '@codemirror/language';
  import { setDiagnostics } from '@codemirror/lint';
  import { EditorState } from '@codemirror/state';
  import { EditorView, keymap, placeholder } from '@codemirror/view';
  import { onMount, untrack } from 'svelte';
  import { api, got } from '../api/client';
  import type { Fill, FormulaResult, FunctionHelp } from '../api/types';
  import type { OpenPlan } from '../plan/plan.svelte';
  import { tell } from '../ui/toaster';
  import { complete, formulaWords, highlighting } from './formulas';
  import { functions } from './functions.svelte';

  interface Props {
    open: OpenPlan;
    fill: Fill;
    formula: string;
    /** True if it is a step's and may name the value so far. */
    inStep?: boolean;
    change: (formula: string) => void;
  }
  let { open, fill, formula, inStep = false, change }: Props = $props();

  let box = $state<HTMLElement>();
  let result = $state.raw<FormulaResult | null>(null);
  let written = $state(untrack(() => formula));
  let here = $state.raw<FunctionHelp | undefined>(undefined);
  let view: EditorView | undefined;
  let timer: ReturnType<typeof setTimeout> | undefined;

  const columns = $derived([
    ...open.view.source.columns.map((c) => c.name),
    ...(inStep ? ['value'] : []),
  ]);

  onMount(() => {
    void functions.load().catch(tell);
    view = new EditorView({
      parent: box!,
      state: EditorState.create({
        doc: formula,
        extensions: [
          history(),
          closeBrackets(),
          bracketMatching(),
          StreamLanguage.define(formulaWords),
          syntaxHighlighting(highlighting),
          autocompletion({
            override: [(context) => complete(context, columns, functions.all)],
            icons: false,
          }),
          placeholder('[Column] & " " & UPPER([Other column])'),
          keymap.of([...completionKeymap, ...historyKeymap, ...defaultKeymap]),
          EditorView.lineWrapping,
          // the page's own word, without which its style sheet would not be let in
          EditorView.cspNonce.of(
            document.querySelector<HTMLMetaElement>('meta[property=csp-nonce]')?.nonce ?? '',
          ),
          EditorView.contentAttributes.of({ 'aria-label': 'Formula' }),
          EditorView.updateListener.of((update) => {
            if (update.docChanged) written = update.state.doc.toString();
            if (update.docChanged || update.selectionSet) here = around(update.state);
          }),
        ],
      }),
    });
    return () => {
      clearTimeout(timer);
      if (written !== formula) change(written);
      view?.destroy();
    };
  });

  /** The function whose arguments are being written. */
  function around(state: EditorState): FunctionHelp | undefined {
    const before = state.sliceDoc(0, state.selection.main.head);
    let depth = 0;
    for (let i = before.length - 1; i >= 0; i--) {
      if (before[i] === ')') depth++;
      else if (before[i] === '(' && depth-- === 0) {
        const name = /([A-Za-z.]+)$/.exec(before.slice(0, i))?.[1]?.toUpperCase();
        return functions.all.find((f) => f.name === name);
      }
    }
    return undefined;
  }

  // anew after each keystroke and each move of the cursor
  $effect(() => {
    const text = written;
    const row = open.cursor;
    clearTimeout(timer);
    timer = setTimeout(() => void untrack(() => attempt(text, row)), 120);
  });

  async function attempt(text: string, row: number) {
    try {
      const found = await got(
        api.POST('/api/plans/{id}/formula', {
          params: { path: { id: open.view.id }, query: open.into },
          body: { fill, formula: text, inStep, row },
        }),
      );
      if (text !== written || !view) return;
      result = found;
      const wrong = found.message
        ? [{ from: found.from, to: found.to, severity: 'error' as const, message: found.message }]
        : [];
      view.dispatch(setDiagnostics(view.state, wrong));
      if (!found.message && text !== formula) change(text);
    } catch (error) {
      tell(error);
    }
  }
</script>

<div class="formula">
  <div class="edit m" bind:this={box}></div>
  <div class="gives" aria-live="polite">
    {#if result?.message}
      <span class="rejected">{result.message}</span>
    {:else if result?.problem}
      <span class="rejected"
        >{result.problem.value ? `“${result.problem.value}”: ` : ''}{result.problem.reason}</span
      >
    {:else if result}
      <span class="q">record {open.cursor + 1} gives</span>
      {#if result.value === undefined}<span class="q">blank</span>{:else}<b class="m"
          >{result.value}</b
        >{/if}
    {/if}
    {#if here}
      <span class="help q2"><b class="m">{here.name}({here.signature})</b> {here.says}</span>
    {/if}
  </div>
</div>

<style>
  .formula {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(180px, 38%);
    gap: 10px;
    padding: 0 12px 7px;
    flex: none;
  }
  .edit {
    border: 1px solid var(--rule-firm);
    background: var(--sheet);
    max-height: 96px;
    overflow: auto;
  }
  .edit:focus-within {
    outline: 2px solid var(--ink);
    outline-offset: -1px;
  }
  .edit :global(.cm-editor) {
    outline: none;
  }
  .edit :global(.cm-scroller) {
    font-family: inherit;
    line-height: 21px;
  }
  .edit :global(.cm-content) {
    caret-color: var(--ink);
    padding: 2px 0;
  }
  .edit :global(.cm-cursor) {
    border-left-color: var(--ink);
  }
  .edit :global(.cm-matchingBracket) {
    background: var(--zest-lit);
    outline: 1px solid var(--zest-edge);
  }
  .gives {
    align-self: center;
    display: grid;
    line-height: 19px;
  }
  .gives > span:first-child {
    overflow-wrap: anywhere;
  }
  :global(.cm-tooltip) {
    background: var(--sheet) !important;
    border: 1px solid var(--ink) !important;
    color: var(--ink);
  }
  :global(.cm-tooltip-autocomplete ul) {
    font-family: inherit !important;
  }
  :global(.cm-tooltip-autocomplete li) {
    padding: 2px 8px !important;
  }
  :global(.cm-tooltip-autocomplete li[aria-selected]) {
    background: var(--zest-lit) !important;
    color: var(--ink) !important;
    box-shadow: inset 4px 0 0 var(--zest-edge);
  }
  :global(.cm-completionDetail) {
    font-style: normal !important;
    color: var(--ink-2);
  }
  :global(.cm-completionInfo) {
    max-width: 320px !important;
    line-height: 19px;
  }
</style>
