/** Hours as people type them: "1:30", "1.5", "1,5", "90 min", "2 h", "1 h 30". @returns whole minutes; null where that is no time */
export function parseHours(text: string): number | null {
  const plain = text.trim().toLowerCase();
  const clock = /^(\d{1,2}):([0-5]\d)$/.exec(plain);
  if (clock) return positive(Number(clock[1]) * 60 + Number(clock[2]));
  const minutes = /^(\d{1,4})\s*(?:m|min|minutes?)$/.exec(plain);
  if (minutes) return positive(Number(minutes[1]));
  const both = /^(\d{1,2})\s*(?:h|hours?)\s*(\d{1,2})\s*(?:m|min|minutes?)?$/.exec(plain);
  if (both) return positive(Number(both[1]) * 60 + Number(both[2]));
  const hours = /^(\d{1,2}(?:[.,]\d{1,2})?)\s*(?:h|hours?)?$/.exec(plain);
  return hours ? positive(Math.round(Number((hours[1] ?? '').replace(',', '.')) * 60)) : null;
}

const positive = (minutes: number): number | null => (minutes > 0 && minutes <= 720 ? minutes : null);
