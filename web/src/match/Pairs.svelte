<script lang="ts">
  // Rows of the chosen class beside the records that they match, or may speak of.
  import { untrack } from 'svelte';
  import type { Decision, Fill, LedgerEntry, MatchClasses } from '../api/types';
  import type { OpenPlan } from '../plan/plan.svelte';
  import { awaits } from '../rehearse/asked';
  import { useKeys } from '../ui/keys.svelte';
  import Outcome from '../ui/Outcome.svelte';
  import { tell } from '../ui/toaster';
  import { region } from '../ui/region';
  import Value from '../ui/Value.svelte';
  import { count, many } from '../ui/words';
  import { Candidates, SHOWN } from './candidates.svelte';
  import { spellAs, spelt } from './alike';
  import { type Answer, answersFor } from './answers';
  import { decidedBy, ignoredInWords, partsOf, withDecision } from './keys';

  interface Props {
    open: OpenPlan;
    classes: MatchClasses;
    at: number;
    move: (by: number) => void;
  }
  let { open, classes, at, move }: Props = $props();

  const TITLES = {
    one: 'Pairs that match one record',
    none: 'Rows that match none',
    several: 'Rows that match several',
    similar: 'Rows that are much like another',
    repeats: 'Rows that repeat',
    decided: 'Rows left out by hand',
    troubled: 'Rows with a troubled value',
  };
  /** So much room two pairs take without a code or a date being cut. */
  const ROOM_FOR_TWO = 720;
  let room = $state(ROOM_FOR_TWO);
  const several = $derived(classes.of === 'several' || classes.of === 'similar');
  const others = $derived(classes.others[at] ?? []);
  const areContradicting = $derived(others.length > 0 && classes.of !== 'similar');
  const shown = $derived(
    others.length
      ? [classes.pairs[at]!, ...others]
      : classes.pairs.slice(at, at + (several || (room && room < ROOM_FOR_TWO) ? 1 : 2)),
  );
  const first = $derived(shown[0]);
  const choices = $derived(several ? (classes.candidates[at] ?? []).slice(0, SHOWN) : []);
  const candidates = untrack(() => new Candidates(open));

  $effect(() => {
    const keys = choices;
    untrack(() => void candidates.want(keys));
  });

  const info = (name: string) => open.view.table.fields.find((f) => f.name === name);

  function blank(field: string): string {
    const fill = open.fill(field);
    if (fill?.onlyNew) return 'only if New';
    if (fill?.whenBlank === 'reject') return 'required';
    return fill?.blankOnMatch ?? 'keep';
  }
  function mayClear(field: string): boolean {
    const fill = open.fill(field);
    return !!info(field)?.nullable && !!fill && !fill.onlyNew && fill.whenBlank !== 'reject';
  }
  function onBlank(field: string, blankOnMatch: Fill['blankOnMatch']) {
    const fill = open.fill(field);
    if (fill) open.putFill({ ...fill, blankOnMatch });
  }
  /** Which of the choices differ from the row in a field. */
  function differs(entry: LedgerEntry, field: string, i: number, key: string): boolean {
    const held = candidates.known.get(key)?.[field];
    const given = entry.after[i];
    return given != null && candidates.known.has(key) && held !== given;
  }

  /** True where lines with the same key say different things of a field. */
  const contradicts = (i: number) => others.some((o) => o.after[i] !== first?.after[i]);

  const by = $derived(first ? decidedBy(open.destination, classes.fields, first) : null);
  const key = $derived(first ? open.destination.keys[first.matchedBy - 1] : undefined);
  /** Records that the row may speak of, or does. */
  const found = $derived(
    several ? (classes.candidates[at] ?? []) : first?.recordKey ? [first.recordKey] : [],
  );
  function decide(act: Decision['act'], record?: string) {
    if (!by) return;
    const of = by;
    const rest = record
      ? { record: partsOf(record, open.view.table) }
      : act === 'other'
        ? { not: found.map((key) => partsOf(key, open.view.table)) }
        : {};
    open.editDestination((d) => withDecision(d, { of, act, ...rest }));
  }

  const letter = (i: number) => String.fromCharCode(65 + i);

  /** What can be said of it, beside which of the records shown it speaks of. */
  const answers = $derived(
    classes.of === 'one' && !key
      ? []
      : answersFor(
          classes.of,
          areContradicting,
          open.destination.policies,
          others.length && spelt(open) ? others[0]!.line : null,
        ),
  );
  let spelling = false;
  function give(act: Answer['act']) {
    if (act === 'same') void same();
    else decide(act, act === 'take' ? first?.recordKey : undefined);
  }
  /** Has the row spelt as the earlier one beside it. */
  async function same() {
    if (!first || !others[0] || spelling) return;
    spelling = true;
    try {
      await spellAs(open, first, others[0]);
    } catch (error) {
      tell(error);
    } finally {
      spelling = false;
    }
  }

  useKeys(() =>
    by
      ? [
          ...choices.map((record, i) => ({
            keys: [letter(i).toLowerCase()],
            say: i ? '' : 'this one',
            act: () => decide('take', record),
          })),
          ...answers.map((answer, i) => ({
            keys: [letter(choices.length + i).toLowerCase()],
            say: choices.length || i ? '' : 'answer',
            act: () => give(answer.act),
          })),
        ]
      : [],
  );
</script>

<div class="bt">
  <h2>{TITLES[classes.of]}</h2>
  <span class="q"
    >{classes.of === 'one' ? 'most changed first' : 'in the order of the file'}{classes.looked <
    classes[classes.of]
      ? `, of ${many(classes.looked, 'row')} from all over the file`
      : ''}</span
  >
  {#if classes.pairs.length}
    <span class="end">
      <button class="button small" onclick={() => move(-1)} aria-label="‹ K, pair before"
        >‹ <kbd>K</kbd></button
      >
      <b>{count(at + 1)}</b>
      <span class="q"
        >of {count(areContradicting ? classes.pairs.length : classes[classes.of])}{areContradicting
          ? `, ${many(classes[classes.of], 'row')}`
          : ''}</span
      >
      <button class="button small" onclick={() => move(1)} aria-label="J ›, pair after"
        ><kbd>J</kbd> ›</button
      >
    </span>
  {/if}
</div>
<div class="scroll" bind:clientWidth={room} {@attach region('Pairs')}>
  {#if shown.length}
    <table class="g">
      <colgroup>
        <col style:width="122px" /><col style:width="104px" />
        {#each shown as pair (pair.line)}<col />{#if pair.before}<col />{/if}{/each}
        {#each choices as record (record)}<col />{/each}
      </colgroup>
      <thead>
        <tr>
          <th></th><th></th>
          {#each shown as pair (pair.line)}
            <th colspan={pair.before ? 2 : 1} class="pair"
              ><Outcome of={pair.outcome} waiting={awaits('rehearsal', pair)} />
              {#if pair.before}{many(pair.changed.length, 'field')}, found by key {pair.matchedBy}
              {:else if !several && !others.length}<span class="q2"
                  >{pair.notes.at(-1)?.reason ?? ''}</span
                >{/if}</th
            >
          {/each}
          {#each choices as record, i (record)}
            <th
              ><button class="button small" onclick={() => decide('take', record)} disabled={!by}
                ><kbd>{letter(i)}</kbd> This one</button
              ></th
            >
          {/each}
        </tr>
        <tr class="second">
          <th>Field</th><th>Blank cell</th>
          {#each shown as pair (pair.line)}
            <th class="pair"><b>Line {pair.line}</b> will stand</th>
            {#if pair.before}<th><b>Record {pair.recordKey}</b> today</th>{/if}
          {/each}
          {#each choices as record (record)}<th><b>Record {record}</b> today</th>{/each}
        </tr>
      </thead>
      <tbody>
        {#each classes.fields as field, i (field)}
          <tr>
            <td class="name">{field}</td>
            <td class="t q2">
              {#if mayClear(field)}
                <span class="onblank" role="radiogroup" aria-label="Blank cell of {field}">
                  {#each ['keep', 'clear'] as const as way (way)}
                    <button
                      role="radio"
                      aria-checked={blank(field) === way}
                      class:chosen={blank(field) === way}
                      onclick={() => onBlank(field, way)}>{way}</button
                    >
                  {/each}
                </span>
              {:else}{blank(field)}{/if}
            </td>
            {#each shown as pair (pair.line)}
              {@const changes = pair.changed.includes(i) || contradicts(i)}
              <td
                dir="auto"
                class="pair"
                class:was={changes}
                class:pale={!changes && !!pair.before}
              >
                {#if pair.after[i] == null}<span class="t q"
                    >{pair.before
                      ? `blank, so ${blank(field) === 'clear' ? 'clear' : 'keep'}`
                      : 'blank'}</span
                  >
                {:else if changes}<b
                    ><Value
                      value={pair.after[i]}
                      field={info(field)}
                      connection={open.plan.connection}
                    /></b
                  >
                {:else}<Value
                    value={pair.after[i]}
                    field={info(field)}
                    connection={open.plan.connection}
                  />{/if}
              </td>
              {#if pair.before}
                <td dir="auto" class:was={changes} class:pale={!changes}
                  ><Value
                    value={pair.before[i]}
                    field={info(field)}
                    connection={open.plan.connection}
                  /></td
                >
              {/if}
            {/each}
            {#each choices as record (record)}
              {@const other = !!first && differs(first, field, i, record)}
              <td dir="auto" class:was={other} class:pale={!other}
                ><Value
                  value={candidates.known.get(record)?.[field]}
                  field={info(field)}
                  connection={open.plan.connection}
                /></td
              >
            {/each}
          </tr>
        {/each}
      </tbody>
    </table>
  {:else}
    <p class="q" style:padding="4px 16px 14px">There are none.</p>
  {/if}
  {#if first && by}
    <div class="how">
      {#if several}
        <span
          >{#if classes.of === 'similar'}Line {first.line} is {first.notes.at(-1)
              ?.reason}{:else}{count(classes.candidates[at]?.length ?? 0)} records agree in
            <b class="m">{key?.fields.join(' and ')}</b>{/if}{choices.length <
          (classes.candidates[at]?.length ?? 0)
            ? `; the first ${SHOWN} are shown`
            : ''}.</span
        >
      {:else if others.length}
        <span>Which is right for <b class="m">{Object.values(by).join(', ')}</b>?</span>
      {:else if classes.of === 'one' && key}
        <span
          >Line {first.line} found record {first.recordKey} by key {first.matchedBy}:
          <span class="m">{Object.values(by).join(', ')}</span>,
          {ignoredInWords(key.ignoring)}.</span
        >
        {#if !answers.length}<button class="go" onclick={() => decide('other')}
            >Not the same?</button
          >{/if}
      {/if}
      {#each answers as answer, i (answer.words)}
        <button class="button small" title={answer.title} onclick={() => give(answer.act)}
          ><kbd aria-hidden="true">{letter(choices.length + i)}</kbd> {answer.words}</button
        >
      {/each}
    </div>
  {/if}
</div>

<style>
  .name {
    background: var(--well);
  }
  .pair {
    border-left: 1px solid var(--rule-firm);
  }
  .second th {
    top: 25px;
    font-weight: 400;
  }
  .onblank {
    display: inline-flex;
    border: 1px solid var(--rule);
  }
  .onblank button {
    padding: 0 5px;
    line-height: 19px;
    cursor: pointer;
  }
  .onblank .chosen {
    background: var(--well);
    color: var(--ink);
    font-weight: 680;
  }
  .how {
    display: flex;
    flex-wrap: wrap;
    gap: 8px 12px;
    align-items: center;
    padding: 9px 16px;
    border-top: 1px solid var(--rule);
  }
</style>
