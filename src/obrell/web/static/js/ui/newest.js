/** Answers of which only that to what was asked last counts, so that a late one never replaces a newer one. */
export class Newest {
  constructor() {
    this.turn = 0;
  }

  /**
   * @template T
   * @param {Promise<T>} answer
   * @returns {Promise<T|null>} null when something else was asked meanwhile, or nothing is waited for any more
   */
  async of(answer) {
    this.turn += 1;
    const { turn } = this;
    const here = await answer;
    return turn === this.turn ? here : null;
  }

  /** Nothing is waited for any more. */
  end() {
    this.turn += 1;
  }
}
