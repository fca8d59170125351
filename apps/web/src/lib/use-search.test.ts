import { withChanges } from './use-search';

describe('the search of an address', () => {
  it('takes changes and keeps the rest', () => {
    expect(withChanges('?view=week&client=MOSS', { view: 'month', colour: 'stage' }).toString()).toBe(
      'view=month&client=MOSS&colour=stage',
    );
    expect(withChanges('?view=week&client=MOSS', { view: null, none: null }).toString()).toBe('client=MOSS');
    expect(withChanges('', { view: null }).toString()).toBe('');
  });
});
