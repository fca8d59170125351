import Sequencer from '@jest/test-sequencer';

/** The database tests begin first, since they take longest: no worker is left alone with one at the end. */
const rank = ({ path }) => (/\.db\.test\.ts$/.test(path) ? 0 : 1);

// eslint-disable-next-line no-restricted-syntax -- Jest takes the default export
export default class LongFirst extends Sequencer {
  sort(tests) {
    return super.sort(tests).sort((a, b) => rank(a) - rank(b));
  }
}
