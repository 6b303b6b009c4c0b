/** One reading pass over the quality part; `at` counts characters taken. */
export class Reader {
  at = 0;
  private open = 0;
  constructor(readonly text: string) {}
  rest(): string {
    return this.text.slice(this.at);
  }
  take(pattern: RegExp): string | null {
    const found = pattern.exec(this.rest());
    if (!found || found[0] === '') return null;
    this.at += found[0].length;
    return found[0];
  }
  /** Parentheses and commas only group: they are passed over, but must balance. */
  punctuation(): boolean {
    if (this.take(/^\(/)) {
      this.open++;
      return true;
    }
    if (this.open > 0 && this.take(/^\)/)) {
      this.open--;
      return true;
    }
    return this.open > 0 && this.take(/^,\s*/) !== null;
  }
  done(): boolean {
    return this.at === this.text.length && this.open === 0;
  }
}
