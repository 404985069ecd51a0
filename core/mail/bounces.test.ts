import { bounceReason, readDeliveryStatus } from './bounces';

/** RFC 3464, appendix E.1: a simple failure. */
const simple = `Reporting-MTA: dns; cs.utk.edu

Original-Recipient: rfc822;louisl@larry.slip.umd.edu
Final-Recipient: rfc822;louisl@larry.slip.umd.edu
Action: failed
Status: 4.0.0
Diagnostic-Code: smtp; 426 connection timed out
Last-Attempt-Date: Thu, 7 Jul 1994 17:15:49 -0400
`;

/** RFC 3464, appendix E.2: several recipients, some failed, one expanded, one delayed. */
const several = `Reporting-MTA: dns; cs.utk.edu

Original-Recipient: rfc822;arathib@vnet.ibm.com
Final-Recipient: rfc822;arathib@vnet.ibm.com
Action: failed
Status: 5.0.0 (permanent failure)
Diagnostic-Code: smtp;
 550 'arathib@vnet.IBM.COM' is not a registered gateway user
Remote-MTA: dns; vnet.ibm.com

Original-Recipient: rfc822;johnh@hpnjld.njd.hp.com
Final-Recipient: rfc822;johnh@hpnjld.njd.hp.com
Action: delayed
Status: 4.0.0 (hpnjld.njd.jp.com: host name lookup failure)

Original-Recipient: rfc822;wsnell@sdcc13.ucsd.edu
Final-Recipient: rfc822;wsnell@sdcc13.ucsd.edu
Action: failed
Status: 5.0.0
Diagnostic-Code: smtp; 550 user unknown
Remote-MTA: dns; sdcc13.ucsd.edu
`;

/** RFC 3464, appendix E.3: a failure behind a gateway, whose address is of another kind. */
const gateway = `Reporting-MTA: x400; DEFAULT

Final-Recipient: x400; /PN=P. Obst/O=x/C=de/
Action: failed
Status: 5.1.1
`;

describe('what a bounce says (RFC 3464)', () => {
  it('is read from its examples: whom it is about, and what became of it', () => {
    expect(readDeliveryStatus(simple)).toEqual([
      { recipient: 'louisl@larry.slip.umd.edu', action: 'failed', status: '4.0.0' },
    ]);
    expect(readDeliveryStatus(several.replace(/\n/g, '\r\n'))).toEqual([
      { recipient: 'arathib@vnet.ibm.com', action: 'failed', status: '5.0.0' },
      { recipient: 'johnh@hpnjld.njd.hp.com', action: 'delayed', status: '4.0.0' },
      { recipient: 'wsnell@sdcc13.ucsd.edu', action: 'failed', status: '5.0.0' },
    ]);
    expect(readDeliveryStatus(gateway)).toMatchObject([{ action: 'failed', status: '5.1.1' }]);
  });

  it('is nothing where it is no such thing', () => {
    expect(readDeliveryStatus('')).toEqual([]);
    expect(readDeliveryStatus('Hello\n\nI am away')).toEqual([]);
    expect(readDeliveryStatus('Final-Recipient: rfc822; <A@B.example>')).toEqual([
      { recipient: 'a@b.example', action: 'other', status: '' },
    ]);
  });

  // RFC 3463, section 3: what the second and third figure of a status mean.
  it.each([
    ['5.1.1', 'no-mailbox'],
    ['5.2.2', 'mailbox-full'],
    ['5.2.1', 'refused-there'],
    ['5.3.4', 'too-large-there'],
    ['4.4.1', 'unreachable-there'],
    ['5.7.1', 'refused-there'],
    ['5.0.0', 'not-said'],
    ['', 'not-said'],
  ])('is said to people by its status %s', (status, reason) => {
    expect(bounceReason(status)).toBe(reason);
  });
});
