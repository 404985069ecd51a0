import { Refused } from '../refused';

/** The bytes that a request carries; refuses whatever was not sent as `application/octet-stream`. */
export const sentBytes = ({ body }: { body: unknown }): Buffer => {
  if (!Buffer.isBuffer(body)) throw new Refused('bad-request', { field: 'content-type' });
  return body;
};
