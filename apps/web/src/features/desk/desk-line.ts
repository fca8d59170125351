/** A line of the desk: wheel, client, title, reason, day, what to do. Narrow screens leave out reason and day. */
export const DESK_LINE =
  'grid grid-cols-[26px_4.4rem_minmax(0,1fr)_auto] md:grid-cols-[26px_4.4rem_minmax(0,0.75fr)_minmax(0,1.5fr)_7rem_8.5rem] items-center gap-x-3 px-4 py-1 min-h-10 hover:bg-sunk';
