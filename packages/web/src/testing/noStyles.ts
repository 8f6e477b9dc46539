/** Stands for a style sheet, which jsdom does not lay out by. */
export {};
