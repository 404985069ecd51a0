import { openCounted } from '../../test-kit/counted';
import { openHouse, setUp } from '../../test-kit/house';
import { visit } from '../../test-kit/panel';

const MESSAGES = 20;
/** Of one message in a conversation that goes on, before it is acknowledged. */
const STATEMENTS_MOST = 6;

describe('what one message costs', () => {
  it('is a bounded number of statements, none of which reads back what was said', async () => {
    const counted = openCounted();
    const house = await openHouse({}, ':memory:', { db: counted.db });
    const { door } = await setUp(house);
    const wren = await visit(house, door.publicId, 'wren');
    for (let nth = 0; nth < 5; nth += 1) await wren.say(`Hello ${nth}`);
    house.services.afterwards.catchUp();
    // What comes after the acknowledgement is not counted here.
    house.services.afterwards.stop();
    counted.taken();
    for (let nth = 0; nth < MESSAGES; nth += 1) await wren.say(`Is it there? ${nth}`);
    const during = counted.taken();
    const each = [...during]
      .map(([sql, count]) => ({ sql, count: count / MESSAGES }))
      .filter(({ count }) => count >= 0.5);
    // Whoever adds one to every message adds it for everybody who waits for theirs.
    expect(each.filter(({ sql, count }) => /^SELECT/.test(sql) && count > 1)).toEqual([]);
    const readBack = each.filter(
      ({ sql }) => /FROM entries/.test(sql) && !/ e\.id = \?$/.test(sql),
    );
    expect(readBack).toEqual([]);
    const total = each.reduce((sum, { count }) => sum + count, 0);
    expect(total).toBeGreaterThan(2);
    expect(total).toBeLessThanOrEqual(STATEMENTS_MOST);
    await house.close();
  });
});
