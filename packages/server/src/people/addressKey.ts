/** By what an e-mail address is found: as it is kept, whatever way it was typed. */
export const addressKey = (email: string): string => email.normalize('NFKC').trim().toLowerCase();
