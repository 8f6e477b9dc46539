const day = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', year: 'numeric' });

/** A moment as its day: 7 Dec 2026. */
export const dayText = (moment: string): string => day.format(new Date(moment));
