<script lang="ts">
  // The heading of a step: its name, its settings, and what can be done with it.
  import type { Fill, Step, StepHelp } from '../api/types';
  import { stepWords } from '../ui/words';
  import { moveStep, withoutStep } from './repairs';

  interface Props {
    step: Step;
    at: number;
    fill: Fill;
    help: StepHelp | undefined;
    altered: number | undefined;
    tried: boolean;
    put: (fill: Fill) => void;
    add: () => void;
    change: (change: Partial<Step>) => void;
    columns: string[];
    books: string[];
    /** Opens the editor for the step's formula. */
    edit: () => void;
    /** True while any step is on trial. */
    trying: boolean;
  }
  let {
    step,
    at,
    fill,
    help,
    altered,
    tried,
    put,
    add,
    change,
    columns,
    books,
    edit,
    trying,
  }: Props = $props();

  const SAID: Record<string, string> = {
    ',': 'comma',
    '.': 'point',
    'day-month-year': 'day, month, year',
    'month-day-year': 'month, day, year',
    'year-month-day': 'year, month, day',
    upper: 'CAPITALS',
    lower: 'small letters',
    title: 'Title Case',
    sentence: 'First letter',
    name: 'Personal Names',
    fraction: '12 % is 0.12',
    points: '12 % is 12',
    keep: 'else keep',
    ask: 'else ask',
    reject: 'else reject',
    blank: 'else blank',
    half: 'half up',
    left: 'in front',
    right: 'behind',
    spaced: 'spaced',
    plain: 'plain',
    buddhist: 'Buddhist years',
    minguo: 'Minguo years',
    hijri: 'Hijri calendar',
    persian: 'Persian calendar',
  };
  const UNITS =
    'm cm mm km ft in yd mi Nmi kg g t lbm ozm stone l ml m3 gal uk_gal sec min hr day C F K kWh MWh kW HP bar psi m/s km/h kn m2 ft2 ha ac'.split(
      ' ',
    );
  const OPEN: Record<string, string> = {
    decimal: 'as in the file',
    order: 'as in the file',
    century: 'years in full',
    otherwise: 'else keep',
    as: '12 % is 0.12',
    how: 'half up',
    side: 'in front',
    form: 'usual form',
    calendar: 'usual years',
  };

  const options = $derived<Record<string, string[]>>({ column: columns, book: books, unit: UNITS });

  /** True if anything is said of how the step is done: that is shown, rather than what is left open. */
  const isSet = $derived(!!help?.settings.some((s) => step.with[s.name]));

  function set(name: string, value: string) {
    const settings = { ...step.with };
    if (value) settings[name] = value;
    else delete settings[name];
    change({ with: settings });
  }

  function onkeydown(event: KeyboardEvent) {
    const typing = event.target instanceof HTMLInputElement;
    if (event.altKey && event.key === 'ArrowLeft') put(moveStep(fill, at, -1));
    else if (event.altKey && event.key === 'ArrowRight') put(moveStep(fill, at, 1));
    else if (event.key === 'Delete' && !typing) put(withoutStep(fill, at));
    else return;
    event.preventDefault();
    event.stopPropagation();
  }
</script>

<th class:tried class:off={step.off}>
  <div class="title">
    <span class="name" title={help?.help}>{help?.title ?? step.kind}</span>
    {#if !tried}
      <span
        class="tools"
        role="toolbar"
        tabindex="-1"
        aria-label="Step {at + 1}, {help?.title}"
        {onkeydown}
      >
        <button
          title={step.off ? 'Switch on' : 'Switch off'}
          aria-label="{step.off ? 'Switch on' : 'Switch off'} {help?.title}"
          onclick={() => change({ off: !step.off })}>{step.off ? '○' : '●'}</button
        >
        <button
          title="Remove (Del)"
          aria-label="Remove {help?.title}"
          onclick={() => put(withoutStep(fill, at))}>✕</button
        >
      </span>
    {/if}
  </div>
  <u>
    {#if !step.off && help?.settings.length}
      {#each help.settings as setting, n (setting.name)}
        {@const spare = !setting.required && !step.with[setting.name] && (n > 0 || isSet)}
        {#if setting.type === 'choice'}
          <select
            class="ed"
            class:spare
            aria-label="{help.title}: {setting.name}"
            disabled={tried}
            value={step.with[setting.name] ?? ''}
            onchange={(e) => set(setting.name, e.currentTarget.value)}
          >
            {#if !setting.required}<option value="">{OPEN[setting.name] ?? 'as found'}</option>{/if}
            {#each setting.choices as choice (choice)}
              <option value={choice}
                >{setting.name === 'century'
                  ? `years ${choice}..`
                  : (SAID[choice] ?? choice)}</option
              >
            {/each}
          </select>
        {:else if setting.type === 'formula'}
          <button class="go m formula" onclick={edit} title={step.with[setting.name]}
            >{step.with[setting.name] || 'write it'}</button
          >
        {:else if options[setting.type]}
          {setting.name === 'column' || setting.name === 'book' ? '' : setting.name}
          <select
            class="ed"
            aria-label="{help.title}: {setting.name}"
            value={step.with[setting.name] ?? ''}
            disabled={tried}
            onchange={(e) => set(setting.name, e.currentTarget.value)}
          >
            {#if !options[setting.type]!.includes(step.with[setting.name] ?? '')}
              <option value={step.with[setting.name] ?? ''}>{step.with[setting.name] ?? '?'}</option
              >
            {/if}
            {#each options[setting.type]! as option (option)}<option>{option}</option>{/each}
          </select>
        {:else}
          <span class:spare
            >{setting.name}
            <input
              class="ed m"
              aria-label="{help.title}: {setting.name}"
              disabled={tried}
              value={step.with[setting.name] ?? ''}
              style="width: {Math.max(3, (step.with[setting.name] ?? '').length + 1)}ch"
              onchange={(e) => set(setting.name, e.currentTarget.value)}
            /></span
          >
        {/if}
      {/each}
      {#if altered && (step.kind === 'cut' || step.kind === 'replace')}<b class="skipped"
          >{stepWords(step, altered)}</b
        >{/if}
    {:else}{stepWords(step, altered)}{/if}
  </u>
  {#if !trying}<button class="plus" aria-label="Add a step after {help?.title}" onclick={add}
      >+</button
    >{/if}
</th>

<style>
  .tried {
    background: var(--zest-lit) !important;
  }
  .off .name {
    color: var(--ink-3);
    font-weight: 400;
  }
  .title {
    display: flex;
    gap: 4px;
  }
  .tools {
    margin-left: auto;
    opacity: 0;
    display: inline-flex;
    gap: 1px;
    padding-right: 6px;
  }
  th:hover .tools,
  th:focus-within .tools {
    opacity: 1;
  }
  .tools button {
    width: 16px;
    height: 16px;
    line-height: 14px;
    color: var(--ink-2);
    cursor: pointer;
  }
  .formula {
    max-width: 100%;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  /* what is left open shows when it is looked for */
  .spare {
    display: none;
  }
  th:hover .spare,
  th:focus-within .spare {
    display: inline-block;
  }
  select.ed {
    max-width: 100%;
    font-size: 13px;
    color: var(--ink-2);
    background: transparent;
  }
  input.ed {
    background: transparent;
    height: 17px;
  }
</style>
