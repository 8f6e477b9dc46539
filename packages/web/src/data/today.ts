/** The day that it is, as the calendar writes it (UTC). */
export const today = (): string => new Date().toISOString().slice(0, 10);
