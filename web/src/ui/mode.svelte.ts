/** Light or dark: as the person chose, else as the system says. */
class Mode {
  dark = $state(false);

  start() {
    const kept = localStorage.getItem('porter-mode');
    this.set(kept ? kept === 'dark' : matchMedia('(prefers-color-scheme: dark)').matches, false);
  }

  set(dark: boolean, keep = true) {
    this.dark = dark;
    document.documentElement.dataset.mode = dark ? 'dark' : 'light';
    if (keep) localStorage.setItem('porter-mode', dark ? 'dark' : 'light');
  }
}

export const mode = new Mode();
