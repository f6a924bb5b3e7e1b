import { useQuery } from '@tanstack/react-query';
import type { DeckText } from '@nimble-bell/core/api';
import { questionFault, readQuestion, type Question } from '@nimble-bell/core/questions';
import type { Deck } from '@nimble-bell/core/room';
import { useAsk } from '../../../app/api';
import { useInfo } from '../../live/useRoom';

/** What is read and noted on the pages of a deck, and the question that stands on one. */
export function useDeckText(deck: Deck) {
  const ask = useAsk();
  const { session } = useInfo();
  const { data, refetch } = useQuery({
    queryKey: ['deck-text', session.id, deck.id],
    queryFn: () => ask<DeckText>(`/sessions/${session.id}/decks/${deck.id}/text`),
    staleTime: Infinity,
  });
  return {
    notes: data?.notes ?? {},
    reload: () => void refetch(),
    questionOn: (page: number) => asQuestion(data?.words[page - 1] ?? ''),
  };
}

/** The question that stands in a text, ready to be asked; null where none does. */
function asQuestion(text: string): Question | null {
  const read = readQuestion(text.replace(/[ \t]+/g, ' '));
  // A page full of words is no question by being read as one: something on it has to ask.
  const asks = read && (read.text.includes('?') || read.options.length > 1 || read.kind === 'trueFalse');
  if (!read || !asks) return null;
  const question: Question = { ...read, anonymous: false };
  return questionFault(question) ? null : question;
}
