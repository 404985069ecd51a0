import { iconFor } from './tab-icon';

describe('the tab’s icon', () => {
  it('shows how many wait, many as many, and nobody as the lamp alone', () => {
    expect(iconFor(0)).toBe('/lamp.svg');
    expect(decodeURIComponent(iconFor(4))).toMatch(/>4<\/text>/);
    expect(decodeURIComponent(iconFor(40))).toMatch(/>9\+<\/text>/);
  });
});
