import { QueryFailedError } from 'typeorm';
import { withoutData } from './logging';

describe('what is written down of an error', () => {
  it('is never what people typed: parameters and rows stay out', () => {
    const driver = Object.assign(new Error('duplicate key value violates unique constraint "uq_people_email"'), {
      code: '23505',
      constraint: 'uq_people_email',
      table: 'people',
      detail: 'Key (lower(email))=(ann@private.test) already exists.',
    });
    const error = new QueryFailedError('insert into people (email) values ($1)', ['ann@private.test'], driver);
    const written = withoutData(Object.assign(new Error('while saving', { cause: error })));
    expect(JSON.stringify(written)).not.toContain('ann@private.test');
    expect(written['cause']).toMatchObject({ code: '23505', constraint: 'uq_people_email', table: 'people' });
  });
});
