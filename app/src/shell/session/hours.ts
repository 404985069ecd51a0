/** When the business is open; told of together with the house. */
export const hoursKey = ['hours'] as const;
