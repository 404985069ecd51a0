import { RowsComing } from '../../../kit/states';
import { kitWords } from '../../../kit/words';
import { HousePage } from '../../../shell/frame/house-page';
import { useHouse } from '../../../shell/session/house';
import { BusinessForm } from '../parts/business-form';
import { words } from '../words';

/** The business's own page. */
export const BusinessPage = () => {
  const { data: house } = useHouse();
  if (!house?.me || !house.business) return <RowsComing />;
  return (
    <HousePage title={words().business.title} isBehind>
      <BusinessForm
        business={house.business}
        isOwner={house.me.role === 'owner'}
        submit={kitWords().save}
      />
    </HousePage>
  );
};
