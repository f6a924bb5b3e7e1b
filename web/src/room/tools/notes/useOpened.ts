import { useEffect, useMemo, useState } from 'react';
import { Hands } from '@nimble-bell/core/hands';
import { say } from '../../../app/notices';
import { nameFrom, useInside, useMe, useNameOf, useRoom, type Inside } from '../../live/useRoom';
import { Carets, type Writer } from './carets';
import type { Writers } from './extensions';
import { SharedDocument } from './shared';

/** So many colours there are for hands. */
const HANDS = 6;

/** The notes of a place, and who else writes in them. */
export interface Opened {
  shared: SharedDocument;
  carets: Carets;
}

const handIn = (people: readonly { member: string }[], member: string | null): number =>
  Math.max(
    0,
    people.findIndex((p) => p.member === member),
  ) % HANDS;

/** The document of this place, once it is here. What was refused is let go: one has again what the others have. */
export function useOpened(place: string): Opened | null {
  const { connection } = useRoom();
  const [anew, setAnew] = useState(0);
  const [opened, setOpened] = useState<Opened | null>(null);
  useEffect(() => {
    const writer = (member: string): Writer => {
      const { state, info } = connection.view;
      if (!state || !info) return { name: 'Somebody', hand: 0 };
      return { name: nameFrom({ room: state, info }, member), hand: handIn(info.people, member) };
    };
    const shared: SharedDocument = new SharedDocument(
      connection,
      { place, name: 'notes' },
      (why) => {
        say(why, 'fault');
        setAnew((n) => n + 1);
      },
      () => setOpened((now) => (now?.shared === shared ? now : { shared, carets })),
    );
    const carets = new Carets(connection, shared.doc, writer);
    return () => {
      carets.close();
      shared.close();
    };
  }, [connection, place, anew]);
  return opened;
}

const selectPeople = ({ info }: Inside) => info.people;

/** Who wrote what in a document: this page's own hand as well, which the server has not said yet. */
export function useWriters({ doc, known: told }: SharedDocument): NonNullable<Writers> {
  const known = told.use();
  const { member: me } = useMe();
  const people = useInside(selectPeople, Object.is);
  const nameOf = useNameOf();
  return useMemo(
    () => ({
      hands: new Hands([...known.hands, { client: doc.clientID, member: me }], known.moved),
      writer: (member) => ({
        name: member === null ? 'Somebody' : nameOf(member),
        hand: handIn(people, member),
      }),
    }),
    [doc, known, me, people, nameOf],
  );
}
