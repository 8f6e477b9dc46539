/** What is not active is found by its status: little of a network is, and lenses take it out. */
export const notActive = ({ status }: { status: string }): string | null =>
  status === 'active' ? null : status;
