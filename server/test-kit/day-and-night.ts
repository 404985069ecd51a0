import type { Services } from '../src/services';
import type { Store } from '../src/store';

const always = Array.from({ length: 7 }, () => [{ from: 0, to: 1_440 }]);

/** It is open at any hour. */
export const openDayAndNight = ({
  store,
  services,
}: {
  store: Store;
  services: Services;
}): void => {
  store.hours.setHouse({ week: always, holidays: null, spells: [] });
  services.hours.forget();
  services.lamp.tell();
};
