/** What jsdom has not of what draws sheets: it is asked for and never comes. What is drawn is tested in the browser. */
class Unseen {
  observe(): void {
    // Nothing comes into view.
  }
  disconnect(): void {
    // Nor leaves it.
  }
}
class Idle {
  postMessage(): void {
    // It never answers.
  }
  terminate(): void {
    // Nothing is running.
  }
}
const deadline = { didTimeout: false, timeRemaining: () => 50 };

export const drawnNowhere = (): void =>
  void Object.assign(globalThis, {
    IntersectionObserver: Unseen,
    Worker: Idle,
    requestIdleCallback: (then: (at: typeof deadline) => void) => setTimeout(() => then(deadline), 0),
    cancelIdleCallback: clearTimeout,
  });
