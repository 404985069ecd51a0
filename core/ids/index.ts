/** Ids are made where something is written first, so they come in from outside: this is their form. */
const idForm = /^[A-Za-z0-9_-]{10,40}$/;

/** A visitor's token: 32 random bytes in base64url, made by the visitor's own browser. */
const tokenForm = /^[A-Za-z0-9_-]{43}$/;

export const isId = (text: string): boolean => idForm.test(text);

export const isVisitorToken = (text: string): boolean => tokenForm.test(text);
