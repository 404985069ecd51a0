import { detailOf, type Headers, isAutomatic, isForged, isSameAddress, withDetail } from '.';

const maren = 'maren@quillfern.example';

describe('what a program has sent', () => {
  it.each<[string, Headers, string]>([
    // RFC 3834, section 5.
    ['says so of itself', { 'auto-submitted': 'auto-replied' }, maren],
    [
      'says that it was made by a program',
      { 'auto-submitted': 'auto-generated; owner-email="a@b.example"' },
      maren,
    ],
    // RFC 5321, 4.5.5: bounces have no return path.
    ['has no return path', {}, ''],
    ['goes to many', { precedence: 'bulk' }, maren],
    ['comes by a list (RFC 2919)', { 'list-id': '<ferns.lists.example>' }, maren],
    [
      'is a report (RFC 3464)',
      { 'content-type': 'multipart/report; report-type=delivery-status' },
      maren,
    ],
    ['is an old out-of-office', { 'x-autoreply': 'yes' }, maren],
    ['comes from the post itself', {}, 'MAILER-DAEMON@quillfern.example'],
  ])('is automatic where it %s', (_what, headers, from) => {
    expect(isAutomatic(headers, from)).toBe(true);
  });

  it.each<[string, Headers]>([
    ['nothing is said', {}],
    ['it says that it is not', { 'auto-submitted': 'no' }],
    ['it is plain', { 'content-type': 'text/plain; charset=utf-8', precedence: 'first-class' }],
  ])('is a person’s where %s', (_what, headers) => {
    expect(isAutomatic(headers, maren)).toBe(false);
  });

  it('is forged where the server that received it has found so (RFC 8601, 7489)', () => {
    const found = (result: string): boolean =>
      isForged({
        'authentication-results': `mx.example; spf=pass; dmarc=${result} header.from=quillfern.example`,
      });
    expect([found('fail'), found('pass'), found('none'), isForged({})]).toEqual([
      true,
      false,
      false,
      false,
    ]);
  });
});

describe('addresses with a detail (RFC 5233)', () => {
  it('carry it, and give it back, whatever became of small and large letters', () => {
    const address = withDetail('replies@porch.example', 'ab12');
    expect(address).toBe('replies+ab12@porch.example');
    expect(detailOf('Replies+AB12@Porch.EXAMPLE', 'replies@porch.example')).toBe('ab12');
  });

  it.each([
    'replies@porch.example',
    'replies+@porch.example',
    'replies+ab12@other.example',
    'other+ab12@porch.example',
    'replies+ab12@porch.example.evil.example',
    '',
  ])('have none where they are not ours: "%s"', (address) => {
    expect(detailOf(address, 'replies@porch.example')).toBeNull();
  });

  it('are the same whatever their letters look like, and no address is the same as another one', () => {
    expect(isSameAddress('Maren@Quillfern.example ', maren)).toBe(true);
    expect(isSameAddress('', '')).toBe(false);
  });
});
