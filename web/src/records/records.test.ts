import { beforeEach, describe, expect, it, vi } from 'vitest';
import { api } from '../api/client';
import { PAGE, RecordsState, type Wanted } from './records.svelte';

const vessels: Wanted = {
  connection: 'marina',
  table: 'vessel',
  run: null,
  outcome: null,
  key: null,
};

describe('records', () => {
  let answers: Record<string, unknown>;
  let asked: { path: string; query?: Record<string, unknown> }[];

  beforeEach(() => {
    vi.restoreAllMocks();
    asked = [];
    answers = {
      '/api/connections/{name}/tables/{table}': { name: 'vessel', fields: [] },
      '/api/connections/{connection}/tables/{table}/records': {
        fields: ['name'],
        total: 250,
        records: Array.from({ length: PAGE }, (_, i) => ({ key: `${i}`, values: [`Boat ${i}`] })),
      },
      '/api/runs/{id}/ledger': { total: 2, entries: [{ recordKey: '7' }, { recordKey: '9' }] },
    };
    vi.spyOn(api, 'GET').mockImplementation((async (
      path: string,
      options?: { params?: { query?: Record<string, unknown> } },
    ) => {
      asked.push({ path, query: options?.params?.query });
      return { data: await answers[path] };
    }) as never);
  });

  const last = () => asked.findLast((a) => a.path.endsWith('/records'))?.query;

  it('turn by pages and begin anew for another search', async () => {
    const records = new RecordsState();
    await records.look(vessels, '');
    records.move(5);
    expect(records.record?.key).toBe('5');
    await records.turn(PAGE);
    expect(last()).toMatchObject({ offset: PAGE, limit: PAGE });
    expect(records.at).toBe(0);
    await records.look(vessels, 'heron');
    expect(last()).toMatchObject({ offset: 0, search: 'heron' });
    records.move(-1);
    expect(records.at).toBe(0);
    records.move(1_000);
    expect(records.at).toBe(PAGE - 1);
  });

  it('are those that a run touched', async () => {
    const records = new RecordsState();
    await records.look({ ...vessels, run: 4, outcome: 'changed' }, '');
    expect(asked.find((a) => a.path === '/api/runs/{id}/ledger')?.query).toMatchObject({
      outcome: 'changed',
    });
    expect(last()).toMatchObject({ key: ['7', '9'], offset: 0 });
    expect(records.total).toBe(2);
  });

  it('stand alone when a key is asked for', async () => {
    const records = new RecordsState();
    await records.look({ ...vessels, key: 931 }, '');
    expect(last()).toMatchObject({ key: ['931'] });
    expect(records.single).toBe(true);
  });

  it('keep the newest answer, whichever comes last', async () => {
    const records = new RecordsState();
    let late: (page: unknown) => void = () => {};
    const path = '/api/connections/{connection}/tables/{table}/records';
    const usual = answers[path];
    answers[path] = new Promise((done) => (late = done));
    const first = records.look(vessels, 'h');
    await vi.waitFor(() => expect(last()).toMatchObject({ search: 'h' }));
    answers[path] = usual;
    await records.look(vessels, 'heron');
    late({ fields: [], total: 1, records: [] });
    await first;
    expect(records.total).toBe(250);
  });

  it('begin with the fullest table', async () => {
    answers['/api/connections/{name}/tables'] = [
      { name: 'berth', records: 40 },
      { name: 'vessel', records: 1873 },
      { name: 'log' },
    ];
    expect(await new RecordsState().loadTables('marina')).toBe('vessel');
    answers['/api/connections/{name}/tables'] = [];
    expect(await new RecordsState().loadTables('marina')).toBeNull();
  });
});
