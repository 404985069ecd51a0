declare module 'stopword' {
  export const deu: string[];
  export const eng: string[];
  export const fra: string[];
  export const ita: string[];
  export const nld: string[];
  export const pol: string[];
  export const porBr: string[];
  export const spa: string[];
}
