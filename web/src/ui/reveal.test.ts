import { describe, expect, it } from 'vitest';
import { reveal } from './reveal';

function at(left: number, top: number, width: number, height: number) {
  const element = document.createElement('div');
  element.getBoundingClientRect = () =>
    ({ left, top, width, height, right: left + width, bottom: top + height }) as DOMRect;
  Object.defineProperty(element, 'clientWidth', { value: width });
  Object.defineProperty(element, 'clientHeight', { value: height });
  return element;
}

describe('what is to be seen', () => {
  const box = () => at(100, 100, 200, 100);

  it('is scrolled to where it lies beyond an edge', () => {
    const far = box();
    reveal(far, at(400, 250, 50, 20));
    expect([far.scrollLeft, far.scrollTop]).toEqual([150, 70]);
    const before = box();
    before.scrollLeft = 80;
    reveal(before, at(60, 120, 50, 20));
    expect([before.scrollLeft, before.scrollTop]).toEqual([40, 0]);
  });

  it('stays where it is seen already, and begins at the edge where it is too large', () => {
    const seen = box();
    reveal(seen, at(150, 120, 50, 20));
    expect([seen.scrollLeft, seen.scrollTop]).toEqual([0, 0]);
    const large = box();
    reveal(large, at(130, 120, 500, 20));
    expect(large.scrollLeft).toBe(30);
    reveal(large, null);
    reveal(undefined, large);
  });
});
