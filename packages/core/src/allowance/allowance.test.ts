import { allowanceLeft, type Allowance } from './index.js';

const clip = { formatId: 'clip', effortMinutes: 270 };
const article = { formatId: 'article', effortMinutes: 600 };
const agreed: Allowance = { hours: 20, formats: [{ formatId: 'clip', pieces: 3 }] };

describe('what is left of a month', () => {
  it('counts pieces by format, and hours over all of them', () => {
    expect(allowanceLeft(agreed, [clip, clip, article], null)).toEqual([
      { formatId: 'clip', included: 3, used: 2, left: 1, leftThen: null },
      { formatId: null, included: 20, used: 19, left: 1, leftThen: null },
    ]);
  });

  it('says what one more would leave, also below nothing', () => {
    expect(allowanceLeft(agreed, [clip, clip, article], clip).map(({ leftThen }) => leftThen)).toEqual([0, -3.5]);
    expect(allowanceLeft(agreed, [], article).map(({ leftThen }) => leftThen)).toEqual([null, 10]);
  });

  it('has nothing to say where nothing is agreed', () => {
    expect(allowanceLeft({ hours: null, formats: [] }, [clip], clip)).toEqual([]);
  });
});
