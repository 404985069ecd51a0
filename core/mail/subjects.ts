/**
 * What programs set before a subject when it is answered or passed on: "Re:" (RFC 5322, 3.6.5), and what programs of
 * other languages write in its place.
 */
const ANSWER =
  /^\s*(?:re|fwd?|aw|wg|sv|vs|vb|rv|res|enc|tr|antw|doorst|odp|pd|ynt|rif|i)\s*(?:\[\d{1,3}\])?\s*[:：]\s*/i;

const ANSWERS_MOST = 20;

/** What a mail is about, without what answering and passing on has set before it: "Re: AW: Two ferns" → "Two ferns". */
export const bareSubject = (subject: string): string => {
  let bare = subject.trim();
  for (let nth = 0; nth < ANSWERS_MOST && ANSWER.test(bare); nth += 1) {
    bare = bare.replace(ANSWER, '');
  }
  return bare.trim();
};
