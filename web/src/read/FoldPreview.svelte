<script lang="ts">
  // Columns that become rows: the sheet at left, the records it makes at right.
  import { api, got } from '../api/client';
  import type { Fold, RawLine, ReadingPreview } from '../api/types';
  import type { OpenPlan } from '../plan/plan.svelte';
  import { region } from '../ui/region';
  import { tell } from '../ui/toaster';
  import { count, many } from '../ui/words';

  interface Props {
    open: OpenPlan;
    fold: Fold;
    folded: Set<string>;
    dismiss: () => void;
  }
  let { open, fold, folded, dismiss }: Props = $props();

  const LINES = 5;
  let preview = $state.raw<ReadingPreview | null>(null);
  let sample = $state.raw<RawLine[]>([]);

  const source = $derived(open.view.source);
  const kept = $derived(source.reading.fold !== undefined);
  const titles = $derived(source.titles.slice(0, 40));
  const beside = $derived(titles.filter((t) => !folded.has(t.letter)).slice(0, 2));
  const across = $derived(titles.filter((t) => folded.has(t.letter)).slice(0, 4));
  const shown = $derived([...beside, ...across]);
  const outNames = $derived([...fold.names.map((n) => n.name), ...fold.values]);
  const out = $derived(
    preview
      ? preview.columns
          .map((name, at) => ({ name, at, made: outNames.includes(name) }))
          .filter((c) => c.made || beside.some((b) => b.name === c.name))
      : [],
  );

  $effect(() => {
    const reading = { ...open.plan.reading, fold };
    const from = source.reading.firstRow ?? 1;
    const path = { id: open.view.id };
    let late = false;
    Promise.all([
      got(
        api.POST('/api/plans/{id}/preview', {
          params: { path },
          body: { reading, from: 0, count: 24 },
        }),
      ),
      got(
        api.GET('/api/plans/{id}/lines', {
          params: { path, query: { from, count: LINES, columns: 40 } },
        }),
      ),
    ]).then(
      ([p, l]) => {
        if (late) return;
        preview = p;
        sample = l;
      },
      (error) => late || tell(error),
    );
    return () => (late = true);
  });

  function put(next: Fold | undefined) {
    open.putReading({ ...open.plan.reading, fold: next });
  }

  function rename(list: 'names' | 'values', at: number, name: string) {
    if (!name.trim()) return;
    const next =
      list === 'names'
        ? { ...fold, names: fold.names.map((n, i) => (i === at ? { ...n, name } : n)) }
        : { ...fold, values: fold.values.map((v, i) => (i === at ? name : v)) };
    put(next);
  }

  function at(line: RawLine, name: string): string {
    return line.cells[source.titles.findIndex((t) => t.letter === name)]?.text ?? '';
  }
</script>

<section class="fold" aria-label="Fold">
  <div class="bt">
    <h2>{many(folded.size, 'column')} fold into rows</h2>
    {#if preview}<span class="q2"
        >{kept
          ? `${many(preview.rows, 'record')} in all`
          : `${many(source.rows, 'record')} become ${count(preview.rows)}`}</span
      >{/if}
    <span class="end">
      {#if kept}
        <button class="button small" onclick={() => put(undefined)}>Unfold</button>
      {:else}
        <button class="button small" onclick={dismiss}>Leave unfolded</button>
        <button class="button small" onclick={() => put(fold)}>Keep the fold</button>
      {/if}
    </span>
  </div>
  <div class="pair">
    <div class="scroll half" {@attach region('Before the fold')}>
      <table class="g">
        <thead>
          <tr>
            <th class="num"></th>
            {#each shown as t (t.letter)}<th class:lit={folded.has(t.letter)}
                >{t.title || t.name}</th
              >{/each}
          </tr>
        </thead>
        <tbody>
          {#each sample.filter((l) => l.role === 'record').slice(0, LINES) as l (l.line)}
            <tr>
              <td class="ln">{l.line}</td>
              {#each shown as t (t.letter)}
                <td class:lit={folded.has(t.letter)} class:r={folded.has(t.letter)}
                  >{at(l, t.letter)}</td
                >
              {/each}
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
    <svg class="arrow" width="22" height="12" viewBox="0 0 22 12" aria-hidden="true"
      ><path d="M1 6h18M14 1l6 5-6 5" fill="none" stroke="currentColor" stroke-width="1.6" /></svg
    >
    <div class="scroll half" {@attach region('After the fold')}>
      <table class="g">
        <thead>
          <tr>
            <th class="num">line</th>
            {#each out as c (c.at)}
              {@const n = fold.names.findIndex((f) => f.name === c.name)}
              {@const v = fold.values.indexOf(c.name)}
              <th class:lit={c.made}>
                {#if kept && n >= 0}
                  <input
                    class="ed"
                    aria-label="Name of the column for titles"
                    value={c.name}
                    onchange={(e) => rename('names', n, e.currentTarget.value)}
                  />
                {:else if kept && v >= 0}
                  <input
                    class="ed"
                    aria-label="Name of the column for values"
                    value={c.name}
                    onchange={(e) => rename('values', v, e.currentTarget.value)}
                  />
                {:else}{c.name}{/if}
              </th>
            {/each}
          </tr>
        </thead>
        <tbody>
          {#each preview?.records.slice(0, 24) ?? [] as row, i (i)}
            <tr>
              <td class="ln">{row.line}</td>
              {#each out as c (c.at)}
                <td class:lit={c.made} class:r={row.cells[c.at]?.kind === 'number'}
                  >{row.cells[c.at]?.text ?? ''}</td
                >
              {/each}
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
  </div>
</section>

<style>
  .fold {
    border-top: 1px solid var(--ink);
    height: 190px;
    flex: none;
    display: flex;
    flex-direction: column;
  }
  .pair {
    flex: 1;
    min-height: 0;
    display: grid;
    grid-template-columns: minmax(0, 1fr) 40px minmax(0, 1fr);
    align-items: center;
  }
  .half {
    align-self: stretch;
    border-top: 1px solid var(--rule);
  }
  .half .g {
    table-layout: auto;
    width: max-content;
    min-width: 100%;
  }
  .arrow {
    justify-self: center;
    color: var(--ink-2);
  }
  .num {
    width: 46px;
  }
  th input.ed {
    width: 90px;
    font-weight: 650;
    background: transparent;
    color: inherit;
  }
</style>
