import { beforeEach, describe, expect, it, vi } from 'vitest';
import { api } from '../api/client';
import { ConnectionForm } from './connection.svelte';

describe('a connection that is filled in', () => {
  beforeEach(() => vi.restoreAllMocks());

  it('says only what somebody said', async () => {
    const post = vi.spyOn(api, 'POST').mockResolvedValue({ data: {} } as never);
    const form = new ConnectionForm();
    form.name = 'marina';
    form.parts.database = 'marina';
    expect(await form.keep()).toBe(true);
    expect(post.mock.calls[0]![1]).toMatchObject({
      body: { settings: { readOnly: false, tables: [] } },
    });
    expect(form.saysMore).toBe(false);

    form.tables = 'vessel, harbour.*\nberth,';
    form.lockSeconds = '5';
    form.certificate = '-----BEGIN CERTIFICATE-----';
    await form.keep();
    const { settings } = (
      post.mock.calls[1] as unknown as [
        string,
        {
          body: ReturnType<
            () => {
              settings: Record<string, unknown>;
            }
          >;
        },
      ]
    )[1].body;
    expect(settings).toMatchObject({ tables: ['vessel', 'harbour.*', 'berth'], lockSeconds: 5 });
    expect(settings.certificate, 'TLS verifies nothing').toBeUndefined();
    expect(form.saysMore).toBe(true);
  });

  it('asks who vouches where TLS verifies, and keeps what was said', () => {
    const form = new ConnectionForm({
      name: 'marina',
      shownName: 'Quillhaven Marina',
      url: 'jdbc:postgresql://db.quillhaven.example/marina?sslmode=verify-full',
      user: 'porter',
      settings: { readOnly: true, tables: ['vessel'], atATime: 3, certificate: 'x' },
    });
    expect(form.verifies).toBe(true);
    expect(form.readOnly).toBe(true);
    expect([form.tables, form.atATime, form.lockSeconds]).toEqual(['vessel', '3', '']);
    form.kind = 'mariadb';
    expect(form.verifies).toBe(false);
  });
});
