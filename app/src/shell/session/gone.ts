/** Tells that the house knows nobody by this session ("gone"): it has ended, or was ended elsewhere. */
export const session = new EventTarget();
