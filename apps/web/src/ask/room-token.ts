/**
 * The token of the contact's room, where they came to the form from it. It comes behind the #, which is sent to nobody, and does not stay in the address, so
 * that whoever hands the form's address on does not hand on their room. Kept for reloads of this tab.
 * @param form the token of the form
 */
export function takeRoomToken(form: string): string | null {
  const key = `zesting:room:${form}`;
  const { pathname, search, hash } = window.location;
  const given = new URLSearchParams(hash.slice(1)).get('room');
  try {
    if (given === null) return sessionStorage.getItem(key);
    sessionStorage.setItem(key, given);
  } catch {
    // a browser that keeps nothing: it is known until the page is loaded anew
  }
  if (given !== null) window.history.replaceState(window.history.state, '', `${pathname}${search}`);
  return given;
}
