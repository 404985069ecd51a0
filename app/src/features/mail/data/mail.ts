import type { Mail, MailChange, MailFound, MailTest } from '@porch/contract/mail';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api } from '../../../shell/session/api';
import { doorbellKey } from '../../../shell/session/doorbell';

const mailKey = ['mail'] as const;
const LOOK_EVERY_MS = 5_000;

/** How mail goes out and comes in; looked at anew while it is in sight, for the mailbox may fail meanwhile. */
export const useMail = () =>
  useQuery({
    queryKey: mailKey,
    queryFn: () => api.get<Mail>('/api/mail'),
    refetchInterval: LOOK_EVERY_MS,
  });

export const useChangeMail = () => {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (change: MailChange) => api.send<Mail>('PUT', '/api/mail', change),
    onSuccess: (mail) => {
      client.setQueryData(mailKey, mail);
      return client.invalidateQueries({ queryKey: doorbellKey });
    },
  });
};

/** Finds the mail servers of an address; nothing is kept of it. */
export const useFindMail = () =>
  useMutation({
    mutationFn: (address: string) => api.send<MailFound>('POST', '/api/mail/find', { address }),
  });

/** Sends a mail to whoever is signed in, to see whether one goes out. */
export const useMailTest = () =>
  useMutation({ mutationFn: () => api.send<MailTest>('POST', '/api/mail/test', {}) });
