/** Scrolls a box, and nothing that it stands on, until something in it is seen. */
export function reveal(box: HTMLElement | undefined, inside: Element | null | undefined) {
  if (!box || !inside) return;
  const frame = box.getBoundingClientRect();
  const place = inside.getBoundingClientRect();
  const left = place.left - frame.left - box.clientLeft;
  const top = place.top - frame.top - box.clientTop;
  box.scrollLeft += beyond(left, left + place.width, box.clientWidth);
  box.scrollTop += beyond(top, top + place.height, box.clientHeight);
}

/** How far a stretch lies outside of a room; its beginning counts more than its end. */
function beyond(from: number, to: number, room: number): number {
  if (from < 0) return from;
  return to > room ? Math.min(from, to - room) : 0;
}
