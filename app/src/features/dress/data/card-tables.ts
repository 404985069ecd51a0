import type { CardRows } from '@porch/contract/cards';
import { useMutation } from '@tanstack/react-query';
import { api } from '../../../shell/session/api';
import type { TableForm } from '../../../shell/tables/table-buttons';

/** Where the cards of a door are read in, and written out as they are being worked on. */
export const cardTable = (doorId: string, form: TableForm): string =>
  `/api/doors/${doorId}/cards/table?as=${form}`;

/** The rows of a table that somebody has chosen. */
export const useCardRows = (doorId: string) =>
  useMutation({
    mutationFn: ({ form, file }: { form: TableForm; file: File }) =>
      api.post<CardRows>(cardTable(doorId, form), file),
  });
