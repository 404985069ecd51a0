/** Longest address without its resource that is taken; RFC 7622 allows more, and nobody has one. */
const BARE_LONGEST = 380;

/** Whose an address is, without the device that it ends with (RFC 7622): "wren@post.example/phone" → "wren@post.example". */
export const bareOf = (address: string): string => address.split('/', 1)[0]?.toLowerCase() ?? '';

/** A person's address without the device, in one form; null: it is none. "Wren@Post.example" → "wren@post.example". */
export const personOf = (address: string): string | null => {
  const bare = bareOf(address.trim());
  const isOne = bare.length <= BARE_LONGEST && /^[^\s@/"&'<>:]+@[^\s@/"&'<>:]+$/.test(bare);
  return isOne ? bare : null;
};

/** On which server somebody is: "wren@post.example" → "post.example". */
export const domainOf = (address: string): string => bareOf(address).split('@').at(-1) ?? '';

/** Whether a file's address is on somebody's own server, or on a part of it: "files.post.example" for "post.example". */
export const isOfServer = (link: string, domain: string): boolean => {
  if (!URL.canParse(link)) return false;
  const { hostname } = new URL(link);
  return hostname === domain || hostname.endsWith(`.${domain}`);
};
