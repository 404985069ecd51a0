/**
 * For what is drawn by its colours alone: it keeps them where the system's few colours are forced on all else, as its
 * state is seen by nothing else (see `forced-colors` in app.css).
 */
export const drawn = { dataSet: { drawn: '' } };
