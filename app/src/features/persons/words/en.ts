export const en = {
  called: {
    page: (page: string) => `Somebody on ${page}`,
    city: (city: string) => `Somebody from ${city}’s time`,
    nothing: 'Somebody',
  },
  you: 'You: ',
  file: 'a file',
};
