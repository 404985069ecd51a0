import type { Join, Member, NewPassword, SetUp, SignIn } from '@porch/contract/people';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { api } from '../../../shell/session/api';
import { deviceKind } from '../../../shell/session/device';

/** The four ways in; each leaves this device signed in, and all that is shown is asked anew. */
const useEntering = <Typed extends object>(path: string) => {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (typed: Typed) =>
      api.send<Member>('POST', path, { ...typed, device: deviceKind() }),
    onSuccess: () => client.invalidateQueries(),
  });
};

export const useSignIn = () => useEntering<SignIn>('/api/sign-in');
export const useSetUp = () => useEntering<SetUp>('/api/set-up');
export const useJoin = () => useEntering<Join>('/api/join');
export const useNewPassword = () => useEntering<NewPassword>('/api/new-password');
