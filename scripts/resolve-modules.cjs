// Some packages offer themselves as ES modules only; Jest asks for CommonJS first, then for those.
module.exports = (path, options) => {
  try {
    return options.defaultResolver(path, options);
  } catch (error) {
    const conditions = ['node', 'import', 'default'];
    try {
      return options.defaultResolver(path, { ...options, conditions });
    } catch {
      throw error;
    }
  }
};
