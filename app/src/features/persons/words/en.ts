export const en = {
  called: {
    page: (page: string) => `Visitor on ${page}`,
    city: (city: string) => `Visitor, ${city} time`,
    nothing: 'Visitor',
  },
  saidBy: {
    you: (text: string) => `You: ${text}`,
    them: (name: string, text: string) => `${name}: ${text}`,
    us: (text: string) => `Us: ${text}`,
  },
  file: 'a file',
};
