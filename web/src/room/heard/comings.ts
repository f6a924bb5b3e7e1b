import { listWords } from '@nimble-bell/core/calendar';

/** Somebody of the room, as far as coming and going is told. */
export interface Came {
  member: string;
  name: string;
  present: boolean;
}

const some = (names: readonly string[]): string =>
  names.length > 3 ? `${names.length} people` : listWords([...names]);

/** Who came and who went between two moments, in a line; null where nobody did. One's own coming is no news. */
export function comingsBetween(
  before: Readonly<Record<string, Came>>,
  after: Readonly<Record<string, Came>>,
  me: string,
): string | null {
  const changed = (to: boolean) =>
    Object.values(after)
      .filter((o) => o.member !== me && o.present === to && (before[o.member]?.present ?? false) !== to)
      .map((o) => o.name);
  const [came, went] = [changed(true), changed(false)];
  const said = [
    ...(came.length ? [`${some(came)} came in.`] : []),
    ...(went.length ? [`${some(went)} left.`] : []),
  ];
  return said.length ? said.join(' ') : null;
}
