/** Fewer links than this are routed at once; of more a draft with elbows is seen first. */
export const quickAbove = 150;
