import { useDoorbell } from '../../../shell/session/doorbell';
import { useInstalling } from '../../../shell/session/installing';
import { words } from '../words';

/** The ways to the doorbell and to installing, with what is true of them now. */
export const useDoorbellWays = () => {
  const devices = useDoorbell().data?.devices ?? [];
  const isInstalled = useInstalling((installing) => installing.isInstalled);
  const said = words().places;
  const ringing = devices.filter(({ isMuted }) => !isMuted).length;
  return {
    doorbell: { title: said.doorbell, more: said.doorbellMore(ringing) },
    install: { title: said.install, more: isInstalled ? said.installDone : said.installMore },
  };
};

/** What the checklist says of both. */
export const useDoorbellTicks = () => {
  const said = words().checklist;
  return {
    homeScreen: { label: said.homeScreen, action: said.homeScreenDo },
    rings: { label: said.rings, action: said.ringsDo },
  };
};
