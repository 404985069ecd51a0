export const en = {
  called: {
    page: (page: string) => `Somebody on ${page}`,
    city: (city: string) => `Somebody from ${city}’s time`,
    nothing: 'Somebody',
  },
  saidBy: {
    you: (text: string) => `You: ${text}`,
    them: (name: string, text: string) => `${name}: ${text}`,
    us: (text: string) => `Us: ${text}`,
  },
  file: 'a file',
};
