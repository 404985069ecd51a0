// Lets Jest import a migration the way the server's bundle does: as its text.
module.exports = {
  process: (source) => ({
    code: `module.exports = { __esModule: true, default: ${JSON.stringify(source)} };`,
  }),
};
