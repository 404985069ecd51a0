import { shellWords } from '../words';
import { ApiError } from './refused';

/** What a form says of a failed request: the sentence, and beside which field. */
export const problemOf = (error: Error | null, field?: string): string => {
  if (!error) return '';
  if (!(error instanceof ApiError)) return shellWords().refusal({ code: 'our-fault' });
  return field === undefined || error.refusal.field === field
    ? shellWords().refusal(error.refusal)
    : '';
};

/** The same for what is beside no field of the form. */
export const problemElsewhere = (error: Error | null, fields: readonly string[]): string =>
  error instanceof ApiError && fields.includes(error.refusal.field ?? '') ? '' : problemOf(error);
