// The core's tests alone, for mutation testing.
const { projects } = require('../jest.config.cjs');
const { displayName: _name, roots: _roots, ...unit } = projects[0];
module.exports = { ...unit, rootDir: '..', roots: ['<rootDir>/packages/core'], testSequencer: undefined };
