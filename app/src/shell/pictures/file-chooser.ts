/** Lets somebody choose from their files, or from their phone's camera. */
export const chooseFiles = (take: (files: File[]) => void, only?: { accept: string }): void => {
  const input = document.createElement('input');
  input.type = 'file';
  input.multiple = only === undefined;
  input.accept = only?.accept ?? '';
  input.onchange = () => take([...(input.files ?? [])]);
  input.click();
};
