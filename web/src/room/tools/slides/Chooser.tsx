import { Button, FileButton, Text } from '@mantine/core';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState, type DragEvent } from 'react';
import type { DeckInfo } from '@nimble-bell/core/api';
import type { Deck } from '@nimble-bell/core/room';
import { useAsk } from '../../../app/api';
import { Fault } from '../../../ui/Fault';
import { useInfo, useRoom } from '../../live/useRoom';
import { useSessionFile } from '../useSessionFile';
import { OnItsWay } from '../../../ui/OnItsWay';
import classes from './slides.module.css';

const TAKEN = 'application/pdf,image/png,image/jpeg,image/webp,image/gif';

/** The files with pages, and what is done with them. */
function useDecks() {
  const { session } = useInfo();
  const { send } = useRoom();
  const ask = useAsk();
  const client = useQueryClient();
  const { share, sendUp } = useSessionFile();
  const [fault, setFault] = useState('');
  const queryKey = ['decks', session.id];
  const list = useQuery({
    queryKey,
    queryFn: () => ask<DeckInfo[]>(`/sessions/${session.id}/decks`),
    refetchInterval: ({ state }) => (state.data?.some((d) => d.preparing) ? 500 : false),
  });
  /** Says why it did not go, if it did not. */
  const attempt = async (work: () => Promise<unknown>) => {
    setFault('');
    try {
      await work();
    } catch (error) {
      setFault((error as Error).message);
    }
  };
  const open = (deck: Deck) => send({ type: 'showSlides', deck, page: 1 });
  /** What was pressed last is shown as soon as it is ready. */
  const wanted = useRef<string | null>(null);
  useEffect(() => {
    const ready = list.data?.find((d) => d.material === wanted.current && d.deck);
    if (!ready) return;
    wanted.current = null;
    void send({ type: 'showSlides', deck: ready.deck!, page: 1 });
  }, [list.data, send]);
  const prepare = async (material: string) => {
    wanted.current = material;
    await ask<DeckInfo>(`/sessions/${session.id}/decks/${material}`, 'POST', {});
    await client.invalidateQueries({ queryKey });
  };
  return {
    ...{ list, share, fault },
    show: ({ deck, material }: DeckInfo) => void attempt(() => (deck ? open(deck) : prepare(material))),
    add: (file: File | null | undefined) => void (file && attempt(async () => prepare(await sendUp(file)))),
  };
}

/** What can be shown page by page: the session's files and the course's, and what is dropped here. */
export default function Chooser() {
  const { list, share, fault, show, add } = useDecks();
  const [over, setOver] = useState(false);
  const drag = (is: boolean) => (e: DragEvent) => {
    e.preventDefault();
    setOver(is);
  };
  return (
    <div
      className={classes.chooser}
      data-over={over}
      data-own-height
      onDragOver={drag(true)}
      onDragLeave={drag(false)}
      onDrop={(e) => {
        drag(false)(e);
        add(e.dataTransfer.files[0]);
      }}
    >
      <Text fw={650}>Which pages does the class look at?</Text>
      {list.error && <Fault error={list.error} />}
      {list.data?.length === 0 && (
        <Text c="dimmed">No PDF or picture is among the files of this session or course yet.</Text>
      )}
      <ul className={classes.files} aria-label="Files with pages">
        {list.data?.map((info) => (
          <Row key={info.material} info={info} show={() => show(info)} />
        ))}
      </ul>
      <FileButton onChange={add} accept={TAKEN}>
        {(button) => (
          <Button {...button} variant="default" loading={share !== null} style={{ alignSelf: 'start' }}>
            Add a PDF or a picture, or drop one here
          </Button>
        )}
      </FileButton>
      <Text size="sm" c="dimmed">
        Only those who teach have what is added here, until you give it to the class under Files and links.
      </Text>
      <OnItsWay share={share} />
      {fault && (
        <Text role="alert" c="var(--clay)">
          {fault}
        </Text>
      )}
    </div>
  );
}

function Row({ info, show }: { info: DeckInfo; show: () => void }) {
  const { name, deck, preparing, why } = info;
  return (
    <li className={classes.file}>
      <span>{name}</span>
      {why && (
        <Text size="sm" c="var(--clay)">
          {why}
        </Text>
      )}
      {deck && (
        <Text size="sm" c="dimmed" className="figures">
          {deck.kind === 'picture' ? 'picture' : `${deck.pages} ${deck.pages === 1 ? 'page' : 'pages'}`}
        </Text>
      )}
      {preparing ? (
        <Text size="sm" role="status" className="figures">
          Taking it apart{preparing.of ? `: ${preparing.done} of ${preparing.of} pages` : ' …'}
        </Text>
      ) : (
        <Button size="xs" onClick={show} aria-label={`Show ${name}`}>
          Show
        </Button>
      )}
    </li>
  );
}
