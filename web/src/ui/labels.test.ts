import { beforeEach, describe, expect, it, vi } from 'vitest';
import { api } from '../api/client';
import { labels } from './labels.svelte';

describe('what linked records are called', () => {
  beforeEach(() => {
    vi.restoreAllMocks();
    vi.useFakeTimers();
  });

  it('is asked for together and only once', async () => {
    const get = vi
      .spyOn(api, 'GET')
      .mockResolvedValue({ data: { '1': 'SLP sloop', '2': 'KTC ketch' } } as never);
    expect(labels.of('marina', 'vessel_type', '1')).toBe('');
    expect(labels.of('marina', 'vessel_type', '2')).toBe('');
    expect(labels.of('marina', 'vessel_type', '1')).toBe('');
    await vi.runAllTimersAsync();
    expect(get).toHaveBeenCalledOnce();
    expect(get.mock.calls[0]?.[1]).toMatchObject({ params: { query: { key: ['1', '2'] } } });
    expect(labels.of('marina', 'vessel_type', '2')).toBe('KTC ketch');
    await vi.runAllTimersAsync();
    expect(get).toHaveBeenCalledOnce();
  });

  it('stays blank for records that are not there, without asking again', async () => {
    const get = vi.spyOn(api, 'GET').mockRejectedValue(new Error('lost'));
    labels.of('marina', 'berth', '99');
    await vi.runAllTimersAsync();
    expect(labels.of('marina', 'berth', '99')).toBe('');
    await vi.runAllTimersAsync();
    expect(get).toHaveBeenCalledOnce();
  });

  it('is asked for in tables of any name', async () => {
    const get = vi.spyOn(api, 'GET').mockResolvedValue({ data: { '1': 'sloop' } } as never);
    labels.of('marina', 'hull and/or rig', '1');
    await vi.runAllTimersAsync();
    expect(get.mock.calls[0]?.[1]).toMatchObject({
      params: { path: { connection: 'marina', table: 'hull and/or rig' } },
    });
  });
});
