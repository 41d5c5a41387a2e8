import { describe, expect, it, vi } from 'vitest';
import { keyboard } from './keys.svelte';

const press = (key: string, more: Partial<KeyboardEvent> = {}) => {
  const event = { key, target: document.body, preventDefault: vi.fn(), ...more };
  keyboard.handle(event as unknown as KeyboardEvent);
  return event;
};

describe('keys', () => {
  it('go to the innermost screen that knows them', () => {
    const outer = vi.fn();
    const inner = vi.fn();
    const dropOuter = keyboard.add(() => [{ keys: ['j'], say: 'outer', act: outer }]);
    const dropInner = keyboard.add(() => [{ keys: ['J'], say: 'inner', act: inner }]);
    expect(press('j').preventDefault).toHaveBeenCalled();
    expect(inner).toHaveBeenCalledOnce();
    expect(outer).not.toHaveBeenCalled();
    dropInner();
    press('j');
    expect(outer).toHaveBeenCalledOnce();
    dropOuter();
    press('j');
    expect(outer).toHaveBeenCalledOnce();
  });

  it('are off while typing and with Control held', () => {
    const act = vi.fn();
    const drop = keyboard.add(() => [{ keys: ['j'], say: '', act }]);
    press('j', { target: document.createElement('input') });
    press('j', { target: document.createElement('select') });
    press('j', { ctrlKey: true });
    press('j', { altKey: true });
    expect(act).not.toHaveBeenCalled();
    drop();
  });

  it('work while a box has just been ticked', () => {
    const act = vi.fn();
    const drop = keyboard.add(() => [{ keys: ['r'], say: '', act }]);
    const box = document.createElement('input');
    box.type = 'checkbox';
    press('r', { target: box });
    expect(act).toHaveBeenCalledOnce();
    drop();
  });
});
