import { router } from 'expo-router';
import { useHouse } from '../../data/house';
import { Room } from '../../parts/form';
import { RowsComing } from '../../parts/states';
import { words } from '../../wording';
import { BusinessForm } from './business-form';

/** The business's own room. */
export const BusinessRoom = () => {
  const { data: house } = useHouse();
  if (!house?.me || !house.business) return <RowsComing />;
  return (
    <Room title={words.business.title} back={() => router.navigate('/house')}>
      <BusinessForm
        business={house.business}
        isOwner={house.me.role === 'owner'}
        submit={words.business.save}
      />
    </Room>
  );
};
