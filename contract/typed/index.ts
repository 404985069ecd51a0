import { EMAIL_LONGEST, NAME_LONGEST } from '@porch/core/text';
import { z } from 'zod';
import { PASSWORD_LONGEST } from '../limits';

/** What people type, as far as it is taken in at all; twice as long as it may be, so that its excess can be told. */
export const ShortTextSchema = z.string().max(NAME_LONGEST * 2);
export const TypedEmailSchema = z.string().max(EMAIL_LONGEST * 2);
export const TypedPasswordSchema = z.string().max(PASSWORD_LONGEST);
