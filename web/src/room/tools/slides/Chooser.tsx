import { Button, FileButton, Progress, Text } from '@mantine/core';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useContext, useState, type DragEvent } from 'react';
import type { DeckInfo } from '@nimble-bell/core/api';
import { LinkContext, useAsk } from '../../../app/api';
import { Fault } from '../../../ui/Fault';
import { sendFile } from '../../../ui/sendFile';
import { useInfo, useRoom } from '../../live/useRoom';
import classes from './slides.module.css';

const TAKEN = 'application/pdf,image/png,image/jpeg,image/webp,image/gif';

/** What can be shown page by page: the session's files and the course's, and what is dropped here. */
export default function Chooser() {
  const { session, course } = useInfo();
  const { send } = useRoom();
  const ask = useAsk();
  const link = useContext(LinkContext);
  const client = useQueryClient();
  const [over, setOver] = useState(false);
  const [share, setShare] = useState<number | null>(null);
  const [fault, setFault] = useState('');
  /** The one that is to be shown as soon as it is ready. */
  const [wanted, setWanted] = useState<string | null>(null);
  const key = ['decks', session.id];
  const list = useQuery({
    queryKey: key,
    queryFn: () => ask<DeckInfo[]>(`/sessions/${session.id}/decks`),
    refetchInterval: ({ state }) => (state.data?.some((d) => d.preparing) ? 500 : false),
  });
  const open = async (info: DeckInfo) => {
    setWanted(null);
    if (info.deck) await send({ type: 'showSlides', deck: info.deck, page: 1 });
  };
  const show = async (material: string) => {
    setFault('');
    setWanted(material);
    try {
      const info = await ask<DeckInfo>(`/sessions/${session.id}/decks/${material}`, 'POST', {});
      await client.invalidateQueries({ queryKey: key });
      if (info.deck) await open(info);
    } catch (error) {
      setFault((error as Error).message);
    }
  };
  const ready = list.data?.find((d) => d.material === wanted && d.deck && !d.preparing);
  const add = async (file: File | null | undefined) => {
    if (!file) return;
    setFault('');
    setShare(0);
    try {
      const query = new URLSearchParams({ name: file.name, session: session.id });
      const at = `/api/courses/${course.id}/materials?${query}`;
      const { id } = (await sendFile(at, file, { tell: setShare, link })) as { id: string };
      await show(id);
    } catch (error) {
      setFault((error as Error).message);
    }
    setShare(null);
  };
  const drop = (e: DragEvent) => {
    e.preventDefault();
    setOver(false);
    void add(e.dataTransfer.files[0]);
  };
  return (
    <div
      className={classes.chooser}
      data-over={over}
      data-own-height
      onDragOver={(e) => {
        e.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={drop}
    >
      <Text fw={650}>Which pages does the class look at?</Text>
      {list.error && <Fault error={list.error} />}
      {list.data?.length === 0 && (
        <Text c="dimmed">No PDF or picture is among the files of this session or course yet.</Text>
      )}
      <ul className={classes.files} aria-label="Files with pages">
        {list.data?.map((info) => (
          <Row key={info.material} info={info} show={() => (info.deck ? open(info) : show(info.material))} />
        ))}
      </ul>
      {ready && (
        <Button onClick={() => void open(ready)} autoFocus>
          Show “{ready.name}”
        </Button>
      )}
      <FileButton onChange={(file) => void add(file)} accept={TAKEN}>
        {(button) => (
          <Button {...button} variant="default" loading={share !== null} style={{ alignSelf: 'start' }}>
            Add a PDF or a picture, or drop one here
          </Button>
        )}
      </FileButton>
      {share !== null && <Progress value={100 * share} aria-label="The file is on its way" />}
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
