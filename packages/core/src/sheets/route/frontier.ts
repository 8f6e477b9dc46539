/** A binary heap of states by cost, in arrays that are kept from one search to the next. */
export class Frontier {
  private states = new Int32Array(1 << 14);
  private costs = new Float32Array(1 << 14);
  private size = 0;

  clear(): void {
    this.size = 0;
  }

  push(state: number, cost: number): void {
    if (this.size === this.states.length) {
      const [states, costs] = [this.states, this.costs];
      this.states = new Int32Array(2 * this.size);
      this.costs = new Float32Array(2 * this.size);
      this.states.set(states);
      this.costs.set(costs);
    }
    const { states, costs } = this;
    let at = this.size++;
    while (at > 0) {
      const above = (at - 1) >> 1;
      const there = costs[above] ?? 0;
      if (there <= cost) break;
      states[at] = states[above] ?? 0;
      costs[at] = there;
      at = above;
    }
    states[at] = state;
    costs[at] = cost;
  }

  /** The cheapest state; -1 when there is none. */
  pop(): number {
    if (this.size === 0) return -1;
    const { states, costs } = this;
    const top = states[0] ?? -1;
    const size = --this.size;
    const state = states[size] ?? 0;
    const cost = costs[size] ?? 0;
    let at = 0;
    for (;;) {
      let below = 2 * at + 1;
      if (below >= size) break;
      if (below + 1 < size && (costs[below + 1] ?? 0) < (costs[below] ?? 0)) below++;
      const there = costs[below] ?? 0;
      if (there >= cost) break;
      states[at] = states[below] ?? 0;
      costs[at] = there;
      at = below;
    }
    states[at] = state;
    costs[at] = cost;
    return top;
  }
}
