import { type AlertMail, en, renderAlertMail } from '.';

const mail: AlertMail = {
  business: 'Quillfern Nursery',
  who: 'Wren <b>',
  since: 'Thu 12 Nov, 10:02',
  isNote: false,
  slips: [
    {
      who: 'Wren <b>',
      when: '10:02',
      isTeam: false,
      text: 'Is it "open"?\nI have <script>',
      files: [],
    },
    { who: 'Maren', when: '10:04', isTeam: true, text: 'Yes', files: [{ name: 'plan.pdf' }] },
  ],
  earlier: 3,
  as: 'Maren',
  until: '26 November',
  link: 'https://porch.example/line/talk-1?a=1&b=2',
};

describe('the mail that says that somebody waits', () => {
  it('carries who, since when, the conversation so far, and how it is answered', () => {
    const { subject, text } = renderAlertMail(mail, en);
    expect(subject).toBe('Wren <b> waits: Is it "open"? I have <script>');
    expect(text).toContain('has been waiting for an answer since Thu 12 Nov, 10:02');
    expect(text).toMatch(
      /3 earlier messages[\s\S]*Is it "open"\?\nI have <script>[\s\S]*Yes\n\[plan\.pdf\]/,
    );
    expect(text).toContain('goes out as Maren');
    expect(text).toContain('until 26 November');
    expect(text).toContain(mail.link);
    expect(text.startsWith(en.above)).toBe(true);
  });

  it('is safe as HTML whatever was written, and fetches nothing', () => {
    const { html } = renderAlertMail(mail, en);
    expect(html).not.toMatch(/<script|<b>|<img|src=|@import|url\(/);
    expect(html).toContain('I have &#60;script&#62;');
    expect(html).toContain('talk-1?a=1&#38;b=2');
  });

  it('says that answers go nowhere where they do', () => {
    const { text, html } = renderAlertMail({ ...mail, until: null }, en);
    expect(text).toContain(en.onlyOpen);
    expect(text + html).not.toContain(en.above);
  });

  it('has a short subject however long the words are, and one without any', () => {
    const long = { ...mail, slips: [{ ...mail.slips[0], text: 'a'.repeat(500) }] } as AlertMail;
    expect(renderAlertMail(long, en).subject.length).toBeLessThan(90);
    expect(renderAlertMail({ ...mail, slips: [] }, en).subject).toBe(
      'Wren <b> waits for an answer',
    );
  });
});
