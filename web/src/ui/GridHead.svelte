<script lang="ts" module>
  /** A column of a grid. */
  export interface GridColumn {
    key: string;
    name: string;
    /** In pixels. */
    width: number;
    /** True if it is the one in hand. */
    lit?: boolean;
    /** True if its values stand at the right. */
    right?: boolean;
    title?: string;
  }
</script>

<script lang="ts">
  // Widths and titles of a grid's columns, behind a few of a fixed kind; what is left over is blank.
  interface Props {
    /** Columns before the others: the line, the outcome. */
    lead?: { name: string; width: number; line?: boolean }[];
    columns: GridColumn[];
    /** What a title that is dragged is told by; titles can't be dragged without it. */
    carries?: string;
    /** What may be dropped on a title. */
    accepts?: string;
    /** Something was dropped on the title of a column. */
    dropped?: (column: string, what: string) => void;
  }
  let { lead = [], columns, carries, accepts, dropped }: Props = $props();

  let over = $state('');
</script>

<colgroup>
  {#each lead as l (l.name)}<col style="width: {l.width}px" />{/each}
  {#each columns as c (c.key)}<col style="width: {c.width}px" />{/each}<col />
</colgroup>
<thead>
  <tr>
    {#each lead as l (l.name)}<th class:ln={l.line}>{l.name}</th>{/each}
    {#each columns as c (c.key)}
      <th
        class:lit={c.lit}
        class:r={c.right}
        class:over={over === c.key}
        title={c.title}
        draggable={carries ? 'true' : undefined}
        ondragstart={(e) => carries && e.dataTransfer?.setData(carries, c.name)}
        ondragover={(e) => {
          if (!accepts || !e.dataTransfer?.types.includes(accepts)) return;
          e.preventDefault();
          over = c.key;
        }}
        ondragleave={() => (over = '')}
        ondrop={(e) => {
          e.preventDefault();
          over = '';
          const what = accepts && e.dataTransfer?.getData(accepts);
          if (what) dropped?.(c.name, what);
        }}>{c.name}</th
      >
    {/each}
    <th></th>
  </tr>
</thead>

<style>
  th.over {
    outline: 2px solid var(--ink);
    outline-offset: -2px;
  }
</style>
