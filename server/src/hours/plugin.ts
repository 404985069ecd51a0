import { IdSchema } from '@porch/contract/entries';
import {
  DoorHoursChangeSchema,
  HolidaysAskedSchema,
  HolidaysSchema,
  HoursChangeSchema,
  HoursSchema,
} from '@porch/contract/hours';
import { countries } from '@porch/core/countries';
import { z } from 'zod';
import { Refused } from '../refused';
import type { Routing } from '../services';

const HOURS_LARGEST_BYTES = 256 * 1024;

const refuseUnknownCountry = (country: string): void => {
  if (!countries.includes(country)) throw new Refused('country-unknown', { field: 'country' });
};

/** When the business is open: read by everybody of the team, set by its owners. */
export const hoursRoutes = async ({ app, services }: Routing): Promise<void> => {
  const { hours } = services;

  app.get(
    '/api/hours',
    {
      config: { who: 'team' },
      schema: { summary: 'When it is open', response: { 200: HoursSchema } },
    },
    async () => hours.shown(),
  );

  app.put(
    '/api/hours',
    {
      config: { who: 'owner' },
      bodyLimit: HOURS_LARGEST_BYTES,
      schema: {
        summary: 'Changes when it is open',
        refuses: ['country-unknown'],
        body: HoursChangeSchema,
        response: { 200: HoursSchema },
      },
    },
    async (request) => {
      const { holidays } = request.body.hours ?? {};
      if (holidays) refuseUnknownCountry(holidays.country);
      return hours.set(request.body.hours);
    },
  );

  app.put(
    '/api/doors/:id/hours',
    {
      config: { who: 'owner' },
      schema: {
        summary: 'Gives a door hours of its own',
        refuses: ['not-found'],
        params: z.object({ id: IdSchema }),
        body: DoorHoursChangeSchema,
        response: { 200: HoursSchema },
      },
    },
    async (request) => hours.setDoor(request.params.id, request.body.week),
  );

  app.get(
    '/api/holidays',
    {
      config: { who: 'owner' },
      schema: {
        summary: 'Public holidays of a country',
        refuses: ['country-unknown'],
        querystring: HolidaysAskedSchema,
        response: { 200: HolidaysSchema },
      },
    },
    async (request) => {
      const { country, region } = request.query;
      refuseUnknownCountry(country);
      return hours.holidays(country, region);
    },
  );
};
