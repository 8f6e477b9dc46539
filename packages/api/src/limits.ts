/** The most bytes of a body, where its call says nothing else. */
export const usualLimit = 64 * 1024;
/** Characters that a password has at least. */
export const passwordLength = 12;
