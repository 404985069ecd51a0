/** Finds what a person wrote in a mail among what they quoted. As much of it as is used. */
declare module 'email-reply-parser' {
  export default class EmailReplyParser {
    /** The text without quoted parts and signatures. */
    parseReply(text: string): string;
  }
}
