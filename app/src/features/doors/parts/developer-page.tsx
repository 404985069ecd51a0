import { ForDeveloper } from '../../../shell/frame/for-developer';
import { developerPageOf } from '../kinds/words';
import { doorWords } from '../words/network';

/** The page for whoever sets up the other side of a door; nothing where the owner does it alone. */
export const DeveloperPage = ({ kind }: { kind: string }) => {
  const page = developerPageOf[kind];
  return page ? <ForDeveloper page={page} more={doorWords().developer[page]} /> : null;
};
