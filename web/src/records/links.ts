/** The address of the records of a table, which may have any name. */
export function recordsOf(connection: string | undefined, table: string, query = ''): string {
  return `/records/${connection ?? ''}/${encodeURIComponent(table)}${query}`;
}
