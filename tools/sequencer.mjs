import Sequencer from '@jest/test-sequencer';

/** The files that take longest begin first, so that no worker is left alone with one at the end. Names are the ends of paths. */
const LONG = ['planning.db.test.ts', 'load.db.test.ts', 'access.db.test.ts'];

const rank = ({ path }) => {
  const index = LONG.findIndex((name) => path.endsWith(name));
  return index < 0 ? LONG.length : index;
};

// eslint-disable-next-line no-restricted-syntax -- Jest takes the default export
export default class LongFirst extends Sequencer {
  sort(tests) {
    return super.sort(tests).sort((a, b) => rank(a) - rank(b));
  }
}
