<script lang="ts">
  // What the file and the plan leave open: one answer serves all rows of a question.
  import { tick, untrack } from 'svelte';
  import type { Question } from '../api/types';
  import CreateFields from '../fill/CreateFields.svelte';
  import type { MatchClass } from '../match/keys';
  import type { OpenPlan } from '../plan/plan.svelte';
  import { useKeys } from '../ui/keys.svelte';
  import Slip from '../ui/Slip.svelte';
  import Changes from '../read/Changes.svelte';
  import { isAmbiguous } from '../read/reading';
  import { count, listed, many } from '../ui/words';
  import type { Asked } from './asked';
  import { Asking, SIMILAR, type Choice } from './asking.svelte';
  import { heading, saidOf } from './sentences';
  import { addressQuestion, questionAt } from './shared';
  import WordList from './WordList.svelte';

  interface Props {
    open: OpenPlan;
    /** Shows the rows that hold a word. */
    show: (field: string, value: string, at: number) => void;
    /** Leads to the stop where it is settled one by one. */
    decide: (of: MatchClass, at: number) => void;
    mend: (field: string, at: number) => void;
  }
  let { open, show, decide, mend }: Props = $props();

  const asking = untrack(() => new Asking(open));
  untrack(() => asking.find(questionAt(location.search)));

  /** Takes a question in hand, so that the address of the page is the address of it. */
  function pick(at: number) {
    asking.pick(at);
    addressQuestion(asking.current ?? null);
  }
  let other = $state<HTMLInputElement>();
  /** What a new record gets, where it is asked for. */
  let made: HTMLElement | undefined;

  $effect(() => {
    void open.rehearsal?.id;
    untrack(() => asking.begin());
  });
  $effect(() => {
    void asking.word;
    untrack(() => void asking.look());
  });

  const NO_WORD = { value: '', rows: 0 };
  const letter = (i: number) => String.fromCharCode(65 + i);

  function choose(choice: Choice) {
    asking.choose(choice);
    if (choice.kind === 'other') other?.focus();
  }

  /** Something that settles a question, or leads to where it is settled one by one. */
  interface Act {
    say: string;
    act: () => void;
    apart?: boolean;
  }

  /** What can be done about the question in hand, where it is no choice. */
  const acts = $derived.by((): Act[] => {
    const asked = asking.current;
    if (!asked) return [];
    const act = (of: MatchClass) => () => decide(of, asked.at);
    const apart = (say: string, of: MatchClass) => ({ say, act: act(of), apart: true });
    const policy = (say: string, change: Parameters<typeof asking.policy>[0]) => ({
      say,
      act: () => asking.policy(change),
    });
    switch (asked.kind) {
      case 'several-matches':
        return [
          ...(asking.further
            ? [{ say: `Settle ${count(asking.further.settles)}`, act: () => asking.settle() }]
            : []),
          apart('Decide side by side', 'several'),
        ];
      case 'similar':
      case 'similar-row': {
        const some = asked.rows > SIMILAR ? `the first ${SIMILAR}` : many(asked.rows, 'row');
        return [
          { say: `Add ${some} as New`, act: () => void asking.decideAlike('other') },
          ...(asked.kind === 'similar-row'
            ? [{ say: 'Leave them out', act: () => void asking.decideAlike('skip') }]
            : []),
          apart('Decide side by side', 'similar'),
        ];
      }
      case 'far-off':
        return [
          { say: 'It is right', act: () => asking.right('this') },
          ...(asked.words.length > 1
            ? [{ say: `All ${count(asked.words.length)} are`, act: () => asking.right('these') }]
            : []),
        ];
      case 'contradicted':
        return [
          policy('Keep the last', { onRepeat: 'keep-last' }),
          policy('the first', { onRepeat: 'keep-first' }),
          policy('Merge', { onRepeat: 'merge' }),
          apart('Side by side', 'repeats'),
        ];
      case 'no-match':
        return [
          policy(`Add all ${count(asked.rows)}`, { onNone: 'add' }),
          policy('Leave them out', { onNone: 'skip' }),
          apart('One by one', 'none'),
        ];
      case 'matched':
        return [
          policy(`Update all ${count(asked.rows)}`, { onMatch: 'update' }),
          policy('Leave them out', { onMatch: 'skip' }),
          apart('One by one', 'one'),
        ];
      case 'guess':
        return [{ say: 'Confirm', act: () => asking.confirm() }];
      default:
        return [];
    }
  });

  /** The first field that a new record still needs, if one is to be added. */
  const lacks = $derived(
    asking.choices[asking.chosen]?.kind.startsWith('add') ? asking.needed[0] : undefined,
  );
  const answerable = $derived(!asking.busy && asking.chosen >= 0 && !lacks);

  /** Answers, or goes to what is still needed for it. */
  function answer() {
    if (!lacks) return void asking.answer();
    const entry = (label: string) =>
      made?.querySelector<HTMLElement>(`[aria-label="${CSS.escape(label)}"]`);
    const table = asking.info?.link?.table ?? '';
    (entry(`Value of ${lacks.name}`) ?? entry(`New ${table}: ${lacks.name}`))?.focus();
  }

  useKeys(() => [
    ...acts.map((one, i) => ({
      keys: [letter(i).toLowerCase()],
      say: '',
      act: () => {
        if (!asking.busy) one.act();
      },
    })),
    ...(acts.length ? [{ keys: acts.map((_, i) => letter(i)), say: 'answer' }] : []),
    ...asking.choices.map((choice, i) => ({
      keys: [letter(i).toLowerCase()],
      say: '',
      act: () => choose(choice),
    })),
    ...(asking.choices.length
      ? [
          { keys: ['a', letter(asking.choices.length - 1)], say: 'choose' },
          { keys: ['Enter'], say: lacks ? 'fill in' : 'answer', act: answer },
        ]
      : []),
    ...(asking.asked.length > 1
      ? [
          { keys: ['ArrowUp'], say: '', act: () => pick(asking.at - 1) },
          { keys: ['ArrowDown'], say: '', act: () => pick(asking.at + 1) },
          { keys: ['ArrowUp', 'ArrowDown'], say: 'question' },
        ]
      : []),
  ]);

  /** What becomes of all words of the question at once. */
  const inPlan = $derived(
    ['add one', 'add', 'reject'].includes(asking.choices[asking.chosen]?.kind ?? ''),
  );

  /** Answers once Enter is pressed in what a new record gets. */
  function answersOnEnter(node: HTMLElement) {
    made = node;
    const listen = async (event: KeyboardEvent) => {
      const typed = event.target;
      if (event.key !== 'Enter' || !(typed instanceof HTMLInputElement)) return;
      event.preventDefault();
      // what was typed is taken once the entry is left
      typed.blur();
      await tick();
      answer();
    };
    node.addEventListener('keydown', listen);
    return () => node.removeEventListener('keydown', listen);
  }

  const forAll = $derived(['add', 'reject'].includes(asking.choices[asking.chosen]?.kind ?? ''));
  const all = (asked: Asked) =>
    asked.words.length === 1 ? 'it' : `all ${count(asked.words.length)} words`;
  const rest = (words: Question[]) => words.slice(1, 5);
</script>

{#snippet others(words: Question[])}
  then {#each rest(words) as next, n (next.value)}{n ? ', ' : ''}<span class="m">{next.value}</span>
    {count(next.rows)}{/each}{words.length > 5 ? ` and ${words.length - 5} more` : ''}
{/snippet}

{#if asking.asked.length}
  <div class="bt">
    <h2>Questions</h2>
    <span class="o waiting" aria-live="polite"
      ><Slip of="waiting" />{many(asking.asked.length, 'question')}{asking.waiting
        ? `, holding ${many(asking.waiting, 'row')}`
        : ''}</span
    >
  </div>
  <div class="questions">
    {#each asking.asked as asked, i (asked.name + asked.kind)}
      {@const on = asked === asking.current}
      {@const word = asked.words[0] ?? NO_WORD}
      <div class="card" class:on data-code="question">
        <button class="headline" aria-expanded={on} onclick={() => pick(i)}>
          <span class="waiting"><Slip of="waiting" /></span>
          <span
            >{#if isAmbiguous(asked.kind)}<b class="m word">{word.value}</b>
              {asked.kind === 'ambiguous-dates'
                ? 'may be a day of two months'
                : 'may have thousands or decimals'}, in {listed(asked.words.map((w) => w.field))}
            {:else if asked.kind === 'words' || asked.kind === 'far-off'}<b class="m"
                >{asked.name}</b
              >
              <b class="m word">{word.value}</b>
              {saidOf(asked, asking.tableOf(asked))}{on || asked.words.length === 1
                ? ''
                : `, and ${many(asked.words.length - 1, 'more word')}`}{:else}{heading(
                asked,
                open.plan.destinations[asked.at]?.table ?? '',
              )}{/if}</span
          >
          {#if asked.kind !== 'columns'}<b class="r"
              >{many(
                on && ['words', 'far-off'].includes(asked.kind) ? word.rows : asked.rows,
                'row',
              )}</b
            >{/if}
        </button>
        {#if on}
          {#if asked.kind === 'words' && asking.means}
            <WordList {asking} />
          {:else if asked.kind === 'words'}
            <div class="choices" role="group" aria-label="What {word.value} means">
              {#each asking.choices as choice, c (choice.kind + choice.value)}
                {#if choice.kind === 'other'}
                  <div class="choice" class:chosen={c === asking.chosen}>
                    <kbd>{letter(c)}</kbd>
                    <span>Use</span>
                    <input
                      class="entry m"
                      list="means"
                      bind:this={other}
                      bind:value={asking.typed}
                      placeholder={asking.known.length
                        ? `one of ${count(asking.known.length)}`
                        : 'another'}
                      aria-label="“{word.value}” means"
                      onfocus={() => asking.choose(choice)}
                      onkeydown={(e) => {
                        if (e.key === 'Enter') void asking.answer();
                        if (e.key === 'Escape') e.currentTarget.blur();
                      }}
                    />
                    <datalist id="means">
                      {#each asking.known as known (known.value)}<option value={known.value}
                        ></option>{/each}
                    </datalist>
                  </div>
                {:else}
                  <button
                    class="choice"
                    class:chosen={c === asking.chosen}
                    aria-pressed={c === asking.chosen}
                    onclick={() => choose(choice)}
                  >
                    <kbd>{letter(c)}</kbd>
                    {#if choice.kind === 'use'}<span>Use <b class="m">{choice.value}</b></span>
                      {#if asking.isNear(choice.value)}<span class="q end">likely</span>{/if}
                    {:else if choice.kind === 'blank'}<span>Leave blank</span>
                    {:else if choice.kind === 'add one' || choice.kind === 'add'}<span
                        >Add {choice.kind === 'add' ? all(asked) : 'it'} to
                        <b class="m">{asking.info?.link?.table}</b></span
                      >
                    {:else}<span
                        >Reject {asked.words.length === 1
                          ? 'its rows'
                          : `the rows of ${all(asked)}`}</span
                      >{/if}
                  </button>
                  {#if (choice.kind === 'add one' || choice.kind === 'add') && c === asking.chosen && asking.link && asking.linked.length}
                    <div class="made scroll" {@attach answersOnEnter}>
                      <CreateFields
                        link={asking.link}
                        table={asking.info?.link?.table ?? ''}
                        linked={asking.linked}
                        columns={open.view.source.columns.map((column) => column.name)}
                        change={(link) => asking.make(link)}
                      />
                    </div>
                  {/if}
                {/if}
              {/each}
            </div>
            <div class="foot">
              <span class="q">{inPlan ? 'kept with the Plan' : 'remembered in a phrasebook'}</span>
              <button class="go q2" onclick={() => show(asked.field, word.value, asked.at)}
                >see its rows</button
              >
              <button class="go q2" onclick={() => mend(asked.field, asked.at)}>in Fill</button>
              <button
                class="button small main end"
                disabled={!answerable}
                onclick={() => void asking.answer()}
                >Answer {count(forAll ? asked.rows : word.rows)}</button
              >
            </div>
            {#if asked.words.length > 1}
              <p class="q then">
                {@render others(asked.words)}
                <button class="go q2" onclick={() => void asking.list()}>all in a list</button>
              </p>
            {/if}
          {:else if asked.kind === 'columns'}
            <div class="changes">
              <Changes {open} headed={false} letter="A" then={() => open.rehearseSoon()} />
            </div>
          {:else if asking.ambiguous}
            <div class="choices" role="group" aria-label="How {word.value} is read">
              {#each asking.meanings as meaning, c (meaning.means)}
                <button
                  class="choice"
                  class:chosen={c === asking.chosen}
                  aria-pressed={c === asking.chosen}
                  onclick={() => choose(asking.choices[c]!)}
                >
                  <kbd>{letter(c)}</kbd> <span>{meaning.words}</span>
                  {#if meaning.means === asking.readAs}<span class="q end">as it is read now</span
                    >{/if}
                </button>
              {/each}
            </div>
            <div class="foot">
              <span class="q">kept with the Plan</span>
              <button class="button small main end" onclick={() => void asking.answer()}
                >Answer {count(asked.rows)}</button
              >
            </div>
          {:else}
            <div class="foot">
              {#if asked.kind === 'several-matches' && asking.further}
                <span class="q2 wide"
                  >The same <b class="m">{asking.further.field}</b> settles {count(
                    asking.further.settles,
                  )} of {count(asking.further.of)}</span
                >
              {:else if asking.correctable}
                <form
                  class="reads wide"
                  onsubmit={(e) => {
                    e.preventDefault();
                    void asking.readSo(
                      String(new FormData(e.currentTarget).get('reads') ?? '').trim(),
                    );
                  }}
                >
                  <input
                    class="entry m"
                    name="reads"
                    placeholder="should read"
                    aria-label="{word.value} reads"
                  />
                  <button class="button small" disabled={asking.busy}>Read so</button>
                </form>
              {/if}
              {#each acts as one, c (one.say)}
                <button
                  class="button small"
                  class:end={one.apart}
                  disabled={asking.busy}
                  aria-keyshortcuts={letter(c)}
                  onclick={one.act}><kbd aria-hidden="true">{letter(c)}</kbd> {one.say}</button
                >
              {/each}
              {#if asked.kind === 'far-off'}
                <button class="go q2" onclick={() => asking.right('any')}>don’t ask here</button>
                <button class="go q2 end" onclick={() => show(asked.field, word.value, asked.at)}
                  >see its rows</button
                >
              {:else if asked.kind === 'guess'}
                <button class="go q2 end" onclick={() => mend(asked.field, asked.at)}
                  >look at it in Fill</button
                >
              {/if}
            </div>
          {/if}
        {/if}
      </div>
    {/each}
  </div>
{/if}

<style>
  .reads {
    display: flex;
    gap: 6px;
  }
  .wide {
    width: 100%;
  }
  .reads input {
    flex: 1;
    min-width: 0;
    height: 24px;
  }
  .changes {
    display: grid;
    gap: 5px;
    justify-items: start;
  }
  .questions {
    border-bottom: 1px solid var(--ink);
  }
  .card {
    border-top: 1px solid var(--rule);
    padding: 0 12px 0 16px;
  }
  .card.on {
    background: var(--sheet);
    box-shadow: inset 4px 0 0 var(--zest-edge);
    padding-bottom: 9px;
  }
  .headline {
    display: grid;
    grid-template-columns: 16px minmax(0, 1fr) auto;
    gap: 8px;
    width: 100%;
    text-align: left;
    padding: 7px 0;
    cursor: pointer;
    overflow-wrap: anywhere;
    line-height: 20px;
  }
  .word {
    background: var(--ask-w);
    padding: 0 4px;
  }
  .choices {
    border: 1px solid var(--rule);
  }
  .choice {
    display: flex;
    gap: 8px;
    align-items: center;
    padding: 3px 6px;
    border-top: 1px solid var(--rule);
    cursor: pointer;
    width: 100%;
    text-align: left;
    min-height: 27px;
  }
  .made {
    padding: 5px 6px 8px 34px;
    display: grid;
    gap: 5px;
    max-height: 190px;
    --name: 128px;
  }
  .choice:first-child {
    border-top: 0;
  }
  .choice.chosen {
    background: var(--zest-lit);
    outline: 1px solid var(--zest-edge);
  }
  .choice .end {
    margin-left: auto;
  }
  .choice input {
    flex: 1;
    height: 24px;
    min-width: 60px;
  }
  .foot {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 12px;
    align-items: center;
    padding-top: 7px;
  }
  .foot .end {
    margin-left: auto;
  }
  .then {
    padding-top: 6px;
    overflow-wrap: anywhere;
  }
</style>
