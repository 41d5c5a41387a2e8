import type { Person } from '../api/types';

/** Who is signed in. Expiring keeps the screen, so that nothing edited is lost. */
class Session {
  person = $state<Person | null>(null);
  known = $state(false);
  expired = $state(false);
  private waiting: (() => void)[] = [];

  enter(person: Person) {
    this.person = person;
    this.known = true;
    this.expired = false;
    this.waiting.splice(0).forEach((resume) => resume());
  }

  nobody() {
    this.person = null;
    this.known = true;
    this.expired = false;
  }

  expire() {
    if (this.person) this.expired = true;
  }

  /** Calls back once somebody has signed in again. */
  whenBack(resume: () => void) {
    this.waiting.push(resume);
  }
}

export const session = new Session();
