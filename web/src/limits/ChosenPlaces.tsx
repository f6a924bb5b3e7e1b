import { Button, Checkbox, Group, Text } from '@mantine/core';
import { useCallback, useMemo, useState } from 'react';
import type { RulesAt } from '@nimble-bell/core/api';
import { countWords } from '@nimble-bell/core/calendar';
import type { Place } from './places';

/** Sessions that are chosen to be set together. */
export interface Chosen {
  has: (place: Place) => boolean;
  count: number;
  choose: (key: string, on: boolean) => void;
  none: () => void;
  /** Where something that is set at a place is set: there, or in all that are chosen with it. */
  together: (place: Place) => RulesAt;
}

export function useChosen(): Chosen {
  const [keys, setKeys] = useState<ReadonlySet<string>>(new Set());
  const choose = useCallback(
    (key: string, on: boolean) =>
      setKeys((was) => new Set(on ? [...was, key] : [...was].filter((k) => k !== key))),
    [],
  );
  return useMemo(
    () => ({
      has: ({ key }) => keys.has(key),
      count: keys.size,
      choose,
      none: () => setKeys(new Set()),
      together: (place) =>
        place.at.layer === 'session' && keys.has(place.key) && keys.size > 1
          ? { layer: 'session', ids: [...keys] }
          : place.at,
    }),
    [keys, choose],
  );
}

/** How many are chosen, and the way to none. */
export function ChosenLine({ chosen }: { chosen: Chosen }) {
  if (!chosen.count) return null;
  return (
    <Group mb="sm" gap="sm" role="status">
      <Text size="sm" fw={600}>
        {countWords(chosen.count, 'session')} chosen: what you set in one of them is set in all.
      </Text>
      <Button size="compact-sm" variant="default" onClick={chosen.none}>
        Choose none
      </Button>
    </Group>
  );
}

interface PlaceHeadProps {
  place: Place;
  chosen: boolean;
  /** Null where nothing is set. */
  choose: Chosen['choose'] | null;
}

/** The head of a place's row: a session can be chosen by it. */
export const PlaceHead = ({ place, chosen, choose }: PlaceHeadProps) => (
  <th scope="row">
    {place.at.layer === 'session' && choose ? (
      <Checkbox
        label={place.title}
        checked={chosen}
        onChange={(e) => choose(place.key, e.currentTarget.checked)}
      />
    ) : (
      place.title
    )}
  </th>
);
