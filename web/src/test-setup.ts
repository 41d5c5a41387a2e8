import '@testing-library/jest-dom/vitest';

class NoResizeObserver {
  observe() {}
  unobserve() {}
  disconnect() {}
}
globalThis.ResizeObserver = NoResizeObserver;
Element.prototype.scrollIntoView = () => {};
