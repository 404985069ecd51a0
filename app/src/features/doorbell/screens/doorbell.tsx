import { Failed, RowsComing } from '../../../kit/states';
import { HousePage } from '../../../shell/frame/house-page';
import { useDoorbell } from '../../../shell/session/doorbell';
import { words } from '../words';
import { Devices } from './devices';
import { RingingOn } from './ring-on';
import { ThisDevice } from './this-device';
import { Wishes } from './wishes';

/** Who rings, when and how: on which devices, for what, and what happens while nobody looks. */
export const DoorbellScreen = () => {
  const { data: known, isError, refetch } = useDoorbell();
  if (isError && !known) return <Failed retry={() => void refetch()} />;
  if (!known) return <RowsComing />;
  return (
    <HousePage title={words().title} isBehind>
      <ThisDevice known={known} />
      <Devices devices={known.devices} />
      <Wishes bell={known.doorbell} />
      <RingingOn rules={known.ringOn} canMail={known.canMail} />
    </HousePage>
  );
};
