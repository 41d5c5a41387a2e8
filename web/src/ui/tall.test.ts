import { describe, expect, it } from 'vitest';
import { Tall } from './tall.svelte';

/** A box that can be scrolled as far as it is tall. */
function aBox(): HTMLElement {
  return { scrollTop: 0 } as HTMLElement;
}

describe('a long list', () => {
  it('draws what is seen and a little more', () => {
    const tall = new Tall(25, () => 1000);
    tall.height = 250;
    expect([tall.from, tall.to, tall.offset]).toEqual([0, 17, 0]);
    tall.top = 2500;
    expect([tall.from, tall.to]).toEqual([94, 117]);
    expect(tall.offset).toBe(94 * 25);
    expect(tall.total).toBe(1000 * 25 + 25);
  });

  it('ends with its last row', () => {
    const tall = new Tall(25, () => 8);
    tall.height = 250;
    tall.top = 900;
    expect(tall.to).toBe(8);
    expect(new Tall(25, () => 0).to).toBe(0);
  });

  it('reaches each of ten million rows', () => {
    const tall = new Tall(25, () => 10_000_000);
    const box = aBox();
    tall.height = 250;
    expect(tall.total).toBeLessThan(20_100_000);
    tall.scrollTo(box, 7_654_321);
    expect(tall.from).toBe(7_654_315);
    tall.wheel(box, { deltaY: 50, preventDefault: () => {} } as WheelEvent);
    expect(tall.from).toBe(7_654_317);
    tall.scrollTo(box, 9_999_999);
    expect(tall.to).toBe(10_000_000);
  });

  it('reveals the next row by one, and a far one in the middle', () => {
    const tall = new Tall(25, () => 1000);
    const box = aBox();
    tall.height = 250;
    tall.reveal(box, 3);
    expect(box.scrollTop).toBe(0);
    tall.reveal(box, 8);
    expect(box.scrollTop).toBe(25);
    tall.reveal(box, 500);
    expect(box.scrollTop).toBe(495 * 25);
  });
});
