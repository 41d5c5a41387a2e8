import { api, got } from '../api/client';
import type { BookUse, BookView } from '../api/types';
import { tell } from '../ui/toaster';
import { many } from '../ui/words';

/** Values of the application that are offered as translations, at most. */
const OFFERED = 500;

/** A phrasebook in hand: its phrases, where it is used, and what translations may be. */
export class OpenBook {
  view = $state.raw<BookView | null>(null);
  uses = $state.raw<BookUse[]>([]);
  /** The application's values that translations may be; empty if that is not known. */
  values = $state.raw<string[]>([]);
  search = $state('');
  /** What was done last. */
  said = $state('');

  readonly phrases = $derived(
    (this.view?.phrases ?? []).filter((p) =>
      `${p.from} ${p.to ?? ''}`.toLowerCase().includes(this.search.toLowerCase()),
    ),
  );

  /**
   * @param changed called once a phrase was added, changed or forgotten
   * @param gone called once the book is removed
   */
  constructor(
    readonly id: number,
    private readonly changed: () => Promise<void>,
    private readonly gone: () => Promise<void>,
  ) {}

  private get path() {
    return { id: this.id };
  }

  async load() {
    try {
      this.view = await got(api.GET('/api/phrasebooks/{id}', { params: { path: this.path } }));
      const query = { book: this.view.book.name };
      this.uses = await got(api.GET('/api/phrasebook-uses', { params: { query } }));
      this.values = await this.offer();
    } catch (error) {
      tell(error);
    }
  }

  private async offer(): Promise<string[]> {
    const { connection, table, field: name } = this.view?.book ?? {};
    if (!connection || !table || !name) return [];
    const info = await got(
      api.GET('/api/connections/{name}/tables/{table}', {
        params: { path: { name: connection, table } },
      }),
    );
    const choices = info.fields.find((f) => f.name === name)?.choices;
    if (choices) return choices;
    const page = await got(
      api.GET('/api/connections/{connection}/tables/{table}/records', {
        params: { path: { connection, table }, query: { limit: OFFERED } },
      }),
    );
    const at = page.fields.indexOf(name);
    return page.records.flatMap((r) => r.values[at] ?? []);
  }

  /** True if the application surely has no such value. */
  isOdd(translation: string | undefined): boolean {
    const known = this.values.length > 0 && this.values.length < OFFERED;
    return !!translation && known && !this.values.includes(translation);
  }

  /** Adds a phrase, or changes its translation; without one it means blank. */
  async put(phrase: { from: string; to?: string }) {
    await this.change(() =>
      api.PUT('/api/phrasebooks/{id}/phrases', { params: { path: this.path }, body: phrase }),
    );
  }

  async forget(word: string) {
    await this.change(() =>
      api.DELETE('/api/phrasebooks/{id}/phrases', {
        params: { path: this.path, query: { word } },
      }),
    );
  }

  private async change(request: () => Promise<{ data?: BookView }>) {
    try {
      this.view = await got(request());
      await this.changed();
    } catch (error) {
      tell(error);
    }
  }

  /** Takes in the phrases of a CSV file. */
  async takeIn(file: File | undefined) {
    if (!file) return;
    try {
      const text = await file.text();
      const taken = await got(
        api.POST('/api/phrasebooks/{id}/csv', { params: { path: this.path }, body: { text } }),
      );
      this.said = `${many(taken.phrases, 'phrase')} taken in from ${file.name}`;
      await this.load();
      await this.changed();
    } catch (error) {
      tell(error);
    }
  }

  async remove() {
    try {
      await api.DELETE('/api/phrasebooks/{id}', { params: { path: this.path } });
      await this.gone();
    } catch (error) {
      tell(error);
    }
  }
}
