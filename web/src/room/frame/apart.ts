import { told } from '../../app/told';

/** Whether the people of the room are in a window of their own, and this one has the stage. */
export const apart = told(false);

/** Whether this window is that one. */
export const isPeople = () => new URLSearchParams(location.search).get('part') === 'people';

const LOOK_MS = 500;

/** Seats and talk go to a window of their own, and are here again when it is closed. Gives whether the browser let it. */
export function openPeople(): boolean {
  const other = window.open(`${location.pathname}?part=people`, 'nb-people', 'popup,width=820,height=820');
  if (!other) return false;
  apart.set(true);
  const look = setInterval(() => {
    if (!other.closed) return;
    clearInterval(look);
    apart.set(false);
  }, LOOK_MS);
  return true;
}
