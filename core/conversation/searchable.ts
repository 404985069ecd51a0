import type { Entry } from './entry';

/** What search sees of an entry: words, file names, and who somebody said they are; '' for the rest. */
export const searchableText = (entry: Entry): string => {
  switch (entry.kind) {
    case 'visitor-said':
      return [entry.subject ?? '', entry.text, ...entry.files.map((file) => file.name)]
        .filter(Boolean)
        .join('\n');
    case 'team-said':
      return [
        entry.text,
        ...entry.files.map((file) => file.name),
        ...(entry.shelf ?? []).map(({ name }) => name),
      ].join('\n');
    case 'visitor-changed':
      return entry.text;
    case 'file-came':
      return entry.file?.name ?? '';
    case 'details':
      return [entry.name, entry.email, entry.phone, ...(entry.own ?? []).map(({ value }) => value)]
        .filter(Boolean)
        .join('\n');
    default:
      return '';
  }
};
