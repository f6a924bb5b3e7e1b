import type { AskedInfo } from '@nimble-bell/core/api';
import { tallyOf } from '@nimble-bell/core/questions';
import { evolve, newRoom, type StoredEvent } from '@nimble-bell/core/room';

/** What a class was asked, and what was answered: with names only where they are kept. */
export function askedIn(events: readonly StoredEvent[], nameOf: (member: string) => string): AskedInfo[] {
  const { asked } = events.reduce(evolve, newRoom()).questions;
  return asked.map(({ id, at, question, rounds }) => ({
    ...{ id, at, question },
    rounds: rounds.map(({ answers }) => {
      const given = Object.entries(answers);
      return {
        tally: tallyOf(
          question,
          given.map(([, g]) => g.answer),
        ),
        answers: question.anonymous
          ? null
          : given.map(([member, { answer }]) => ({ member, name: nameOf(member), answer })),
      };
    }),
  }));
}
