/** A write that can be taken back, by the key that does so. */
export interface Step {
  readonly calendar: string;
  readonly token: string;
}

const MOST = 50;

/** What was written and can be taken back, and what was taken back and can be done again: as one goes, several steps each way. */
export class Steps {
  private done: Step[] = [];
  private back: Step[] = [];

  wrote(step: Step): void {
    this.done = [...this.done, step].slice(-MOST);
    // What is written anew leaves nothing to do again.
    this.back = [];
  }
  last(): Step | undefined {
    return this.done.at(-1);
  }
  undone(): Step | undefined {
    return this.back.at(-1);
  }
  /** A step was taken back; `by` takes that back again. */
  tookBack(token: string, by: Step): void {
    this.done = this.done.filter((step) => step.token !== token);
    this.back = [...this.back, by].slice(-MOST);
  }
  didAgain(token: string, by: Step): void {
    this.back = this.back.filter((step) => step.token !== token);
    this.done = [...this.done, by].slice(-MOST);
  }
}
