import type { ClientShape, SessionShape } from '@zesting/contract';
import { FEATURES } from '../features';
import { actionsFor } from './actions';

const clients = [{ code: 'AAA', name: 'Client A' }] as ClientShape[]; // the parts that are read
const words = (role: SessionShape['role']) =>
  actionsFor(FEATURES, { role, personId: 'p' } as SessionShape, clients).map((action) => action.words);

describe('what can be done from anywhere', () => {
  it('is everything that a manager may open', () => {
    expect(words('manager')).toEqual(
      expect.arrayContaining(['Your desk', 'Requests', 'Clients', 'People', 'Keyboard help', 'Only Client A', 'Calendar: this week']),
    );
  });

  it('leaves out what a role may not see', () => {
    expect(words('staff')).toEqual(expect.arrayContaining(['Your steps', 'Production', 'Calendar']));
    expect(words('staff')).not.toContain('Requests');
    expect(words('freelance')).toEqual([
      'Your steps',
      'To make, one after another',
      'Your page: hours, time off, round-ups',
      'Keyboard help',
    ]);
  });

  it('has no two that read the same, and each leads somewhere', () => {
    const all = actionsFor(FEATURES, { role: 'lead', personId: 'p' } as SessionShape, clients);
    expect(new Set(all.map((action) => action.words)).size).toBe(all.length);
    for (const { path } of all) expect(path === null || path.startsWith('/')).toBe(true);
  });
});
