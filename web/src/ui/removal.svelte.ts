import { api, got } from '../api/client';
import type { Deletion } from '../api/types';

/** What can be deleted. */
export type Kind = 'plan' | 'run' | 'file' | 'connection';

/** Something that is asked to be deleted: what that means is told before it is done. */
export class Removal {
  meaning = $state.raw<Deletion | null>(null);
  refusal = $state('');
  busy = $state(false);

  constructor(
    readonly kind: Kind,
    readonly id: string,
    readonly name: string,
    private readonly done: () => void,
  ) {}

  private get params() {
    return { params: { path: { id: Number(this.id), name: this.id } } };
  }

  /** Asks what deleting it means. */
  async ask() {
    try {
      this.meaning = await this.asked();
    } catch (error) {
      this.refusal = error instanceof Error ? error.message : String(error);
    }
  }

  private asked(): Promise<Deletion> {
    switch (this.kind) {
      case 'plan':
        return got(api.GET('/api/plans/{id}/deletion', this.params));
      case 'run':
        return got(api.GET('/api/runs/{id}/deletion', this.params));
      case 'file':
        return got(api.GET('/api/sources/{id}/deletion', this.params));
      case 'connection':
        return got(api.GET('/api/connections/{name}/deletion', this.params));
    }
  }

  async go() {
    this.busy = true;
    try {
      await this.gone();
      this.done();
    } catch (error) {
      this.refusal = error instanceof Error ? error.message : String(error);
    } finally {
      this.busy = false;
    }
  }

  private async gone() {
    switch (this.kind) {
      case 'plan':
        return api.DELETE('/api/plans/{id}', this.params);
      case 'run':
        return api.DELETE('/api/runs/{id}', this.params);
      case 'file':
        return api.DELETE('/api/sources/{id}', this.params);
      case 'connection':
        return api.DELETE('/api/connections/{name}', this.params);
    }
  }
}
