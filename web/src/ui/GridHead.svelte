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
  }
  let { lead = [], columns }: Props = $props();
</script>

<colgroup>
  {#each lead as l (l.name)}<col style="width: {l.width}px" />{/each}
  {#each columns as c (c.key)}<col style="width: {c.width}px" />{/each}<col />
</colgroup>
<thead>
  <tr>
    {#each lead as l (l.name)}<th class:ln={l.line}>{l.name}</th>{/each}
    {#each columns as c (c.key)}
      <th class:lit={c.lit} class:r={c.right} title={c.title}>{c.name}</th>
    {/each}
    <th></th>
  </tr>
</thead>
