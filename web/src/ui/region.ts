/** Makes a scrolling part of a screen reachable by keyboard and known by name. */
export function region(name: string) {
  return (element: HTMLElement) => {
    element.tabIndex = 0;
    element.setAttribute('role', 'region');
    element.setAttribute('aria-label', name);
  };
}
