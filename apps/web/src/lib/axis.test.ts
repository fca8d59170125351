import { addDays, getDay } from '@zesting/core';
import { barOf, daysOf, dragged, heldInSight, leftOf } from './axis';

const day = getDay;
const period = (fromOn: string, toOn: string) => ({ fromOn: day(fromOn), toOn: day(toOn) });

describe('an axis of days', () => {
  it('places days and bars, as far as they are seen', () => {
    const axis = period('2027-03-01', '2027-03-10'); // ten days
    expect(leftOf(axis, day('2027-03-01'))).toBe(0);
    expect(leftOf(axis, day('2027-03-06'))).toBe(50);
    expect(barOf(axis, period('2027-03-03', '2027-03-04'))).toEqual({ left: 20, width: 20 });
    expect(barOf(axis, period('2027-02-01', '2027-03-02'))).toEqual({ left: 0, width: 20 });
    expect(barOf(axis, period('2027-03-10', '2027-06-01'))).toEqual({ left: 90, width: 10 });
    expect(barOf(axis, period('2027-03-11', '2027-06-01'))).toBeNull();
    expect(barOf(axis, period('2027-02-01', '2027-02-28'))).toBeNull();
    expect(daysOf(axis, 0.26)).toBe(3);
  });

  it('drags the whole, or an end that never passes the other', () => {
    const one = period('2027-03-05', '2027-03-10');
    expect(dragged(one, 'whole', -7)).toEqual(period('2027-02-26', '2027-03-03'));
    expect(dragged(one, 'start', 3)).toEqual(period('2027-03-08', '2027-03-10'));
    expect(dragged(one, 'start', 30)).toEqual(period('2027-03-10', '2027-03-10'));
    expect(dragged(one, 'end', -30)).toEqual(period('2027-03-05', '2027-03-05'));
    for (const hold of ['whole', 'start', 'end'] as const)
      for (let days = -20; days <= 20; days++) {
        const { fromOn, toOn } = dragged(one, hold, days);
        expect(fromOn <= toOn).toBe(true);
        if (hold === 'whole') expect(fromOn).toBe(addDays(one.fromOn, days));
      }
  });

  it('lets go of nothing that is held: it stays in sight however far it is dragged', () => {
    const axis = period('2027-03-01', '2027-03-31');
    const one = period('2027-03-05', '2027-03-10');
    for (const own of [one, period('2027-02-20', '2027-03-01'), period('2027-03-31', '2027-04-09')])
      for (const days of [-400, -31, -3, 0, 3, 31, 400])
        expect(barOf(axis, dragged(own, 'whole', heldInSight(axis, own, 'whole', days)))).not.toBeNull();
    for (const days of [-400, -3, 3, 400]) {
      expect(dragged(one, 'start', heldInSight(axis, one, 'start', days)).fromOn >= axis.fromOn).toBe(true);
      expect(dragged(one, 'end', heldInSight(axis, one, 'end', days)).toOn <= axis.toOn).toBe(true);
    }
    expect(heldInSight(axis, one, 'whole', 7)).toBe(7);
    expect(heldInSight(axis, one, 'end', 400)).toBe(21);
    expect(heldInSight(axis, one, 'start', -400)).toBe(-4);
  });
});
