/** A plan that is not there, or not there any more: a refusal, told at the edge. */
export class LineProblem extends Error {
  constructor(
    readonly reason: 'absent' | 'thrown away',
    /** Whole sentences with the remedy. */
    message: string,
  ) {
    super(message);
  }
}
