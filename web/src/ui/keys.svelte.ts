import { onMount } from 'svelte';

/** A key that does something on a screen; `say` is its word in the foot strip. */
export interface Key {
  keys: string[];
  say: string;
  act?: (event: KeyboardEvent) => void;
}

const NAMES: Record<string, string> = {
  ArrowUp: '↑',
  ArrowDown: '↓',
  ArrowLeft: '←',
  ArrowRight: '→',
  Escape: 'Esc',
  Enter: '↵',
};

/** What stands on a key. */
export function keyName(key: string): string {
  return NAMES[key] ?? key.toUpperCase();
}

function isTyping(target: EventTarget | null): boolean {
  if (target instanceof HTMLInputElement) return target.type !== 'checkbox';
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable || ['TEXTAREA', 'SELECT'].includes(target.tagName))
  );
}

/** The keys of the screens that are shown now, the innermost last. */
class Keyboard {
  private screens = $state.raw<(() => Key[])[]>([]);
  shown = $derived(this.screens.flatMap((keys) => keys()).filter((k) => k.say));

  handle(event: KeyboardEvent) {
    if (event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target)) return;
    for (const keys of [...this.screens].reverse()) {
      const found = keys().find(
        (k) => k.act && k.keys.some((name) => name.toLowerCase() === event.key.toLowerCase()),
      );
      if (found) {
        event.preventDefault();
        found.act?.(event);
        return;
      }
    }
  }

  add(keys: () => Key[]): () => void {
    this.screens = [...this.screens, keys];
    return () => {
      this.screens = this.screens.filter((k) => k !== keys);
    };
  }
}

export const keyboard = new Keyboard();

/** Makes keys work while the calling component is shown. */
export function useKeys(keys: () => Key[]) {
  onMount(() => keyboard.add(keys));
}
