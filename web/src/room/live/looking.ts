import type { SeenAs } from '@nimble-bell/core/api';
import { refuse } from '@nimble-bell/core/room';
import { say } from '../../app/notices';
import type { Call } from './call';
import { inListOrder } from '../../app/order';
import type { RoomView } from './connection';
import { Lines } from './lines';
import type { RoomTools } from './useRoom';
import { Voices } from './voices';

const NO_TRACKS: never[] = [];
/** No sound and no picture. */
const SILENT = {
  subscribe: () => () => {},
  tracks: () => NO_TRACKS,
  levels: () => new Map<string, number>(),
  looks: { want: () => () => {} },
  ease: () => {},
  measured: async () => null,
} as unknown as Call;

type Line = RoomTools['connection'];

/** The tools of somebody who looks at another's room, and does nothing in it. */
export class Looking implements Line {
  #view: RoomView;
  readonly #listeners = new Set<() => void>();

  constructor(seen: SeenAs) {
    this.#view = viewOf(seen);
  }

  get view() {
    return this.#view;
  }
  readonly subscribe: Line['subscribe'] = (listener) => {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  };
  readonly ask: Line['ask'] = async () => ({ ok: false, refusal: refuse('unknown', ONLY_LOOKS) }) as never;
  readonly signal: Line['signal'] = () => {};
  readonly onDocument: Line['onDocument'] = () => () => false;
  readonly onSignal: Line['onSignal'] = () => () => false;
  readonly voices = new Voices();

  /** The room as it is now. */
  show(seen: SeenAs) {
    this.#view = viewOf(seen);
    for (const listener of this.#listeners) listener();
  }

  readonly tools: RoomTools = {
    connection: this,
    call: SILENT,
    lines: new Lines(this),
    send: async () => onlyLooks(),
    sendWithDevice: async () => onlyLooks(),
  };
}

const ONLY_LOOKS = 'You only look: this is as they have it.';
const onlyLooks = () => {
  say(ONLY_LOOKS, 'fault');
  return false;
};

const viewOf = ({ info, room }: SeenAs): RoomView => ({
  ...{ status: 'in', porch: null, relay: true, refusal: null, shut: false },
  info: { ...info, people: inListOrder(info.people) },
  state: room,
});
