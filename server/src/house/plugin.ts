import {
  BusinessChangeSchema,
  BusinessSchema,
  HouseSchema,
  type Member,
} from '@porch/contract/team';
import { toBusiness } from '../accounts/accounts';
import { COOKIE, memberAsking } from '../accounts/plugin';
import { Refused } from '../refused';
import type { Room } from '../services';
import { toDoor } from './house';

/** Who is asking and what house this is; and the business's own name and zone. */
export const houseRoom = async ({ app, services }: Room): Promise<void> => {
  const { store, accounts, clock, originOf } = services;

  app.get('/api/house', { schema: { response: { 200: HouseSchema } } }, async (request) => {
    const secret = request.cookies[COOKIE];
    const me: Member | null = secret ? accounts.memberOf(secret) : null;
    const business = store.business.read();
    return {
      isSetUp: business !== null,
      me,
      // Before signing in nobody learns more than that somebody has set up.
      business: me ? business : null,
      team: me ? store.members.all() : [],
      doors: me ? store.doors.all().map((door) => toDoor(door, originOf(request))) : [],
      now: clock.now(),
    };
  });

  app.put(
    '/api/business',
    { schema: { body: BusinessChangeSchema, response: { 200: BusinessSchema } } },
    async (request) => {
      const { role } = memberAsking(services, request);
      if (role !== 'owner') throw new Refused('role-not-enough');
      const business = toBusiness(request.body, 'name');
      store.business.write(business, clock.now());
      return business;
    },
  );
};
