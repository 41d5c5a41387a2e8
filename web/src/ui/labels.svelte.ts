import { SvelteMap } from 'svelte/reactivity';
import { api, got } from '../api/client';

/** What linked records are called, asked for together and remembered. */
class Labels {
  private known = new SvelteMap<string, string>();
  private wanted: Record<string, string[]> = {};

  /** The label of a record, '' until it is known. */
  of(connection: string, table: string, key: string): string {
    // a record that is still to be made has no key to ask for
    if (key.startsWith('new ')) return '';
    const name = `${connection}/${table}/${key}`;
    const label = this.known.get(name);
    if (label === undefined) this.want(`${connection}/${table}`, key);
    return label ?? '';
  }

  private want(table: string, key: string) {
    if (Object.keys(this.wanted).length === 0) setTimeout(() => void this.ask(), 20);
    const keys = (this.wanted[table] ??= []);
    if (!keys.includes(key)) keys.push(key);
  }

  private async ask() {
    const asked = Object.entries(this.wanted);
    this.wanted = {};
    for (const [path, keys] of asked) {
      // a table may have any name, a connection has no such sign
      const sign = path.indexOf('/');
      const [connection, table] = [path.slice(0, sign), path.slice(sign + 1)];
      try {
        const found = await got(
          api.GET('/api/connections/{connection}/tables/{table}/labels', {
            params: { path: { connection, table }, query: { key: keys.slice(0, 400) } },
          }),
        );
        for (const key of keys) this.known.set(`${path}/${key}`, found[key] ?? '');
      } catch {
        for (const key of keys) this.known.set(`${path}/${key}`, '');
      }
    }
  }
}

export const labels = new Labels();
