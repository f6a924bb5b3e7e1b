import { Group, Loader, Modal, Stack, Text } from '@mantine/core';
import { useState } from 'react';
import type { KeptBoardInfo } from '@nimble-bell/core/api';
import { countWords } from '@nimble-bell/core/calendar';
import type { KeptBoard } from '@nimble-bell/core/room';
import { useAsked } from '../app/queries';
import { SaveAs } from '../room/tools/board/SaveAs';
import { Surface } from '../room/tools/board/Surface';
import { Fault } from './Fault';
import { Panel } from './Panel';
import { SmallButton } from './SmallButton';

/** The boards of a class that is over, which one may have; nothing where none was drawn on. */
export default function ClassBoards({ session, name }: { session: string; name: string }) {
  const { data } = useAsked<KeptBoardInfo[]>(`/sessions/${session}/boards`);
  const [opened, setOpened] = useState<KeptBoardInfo | null>(null);
  if (!data?.length) return null;
  return (
    <Panel
      title="Boards"
      about="As they were when the class was over. Somebody’s own is theirs, and of those who teach."
    >
      <Group gap={8} component="ul" p={0} m={0} style={{ listStyle: 'none' }}>
        {data.map((board) => (
          <li key={board.place}>
            <SmallButton onClick={() => setOpened(board)}>
              {board.title}
              {board.sides > 1 && `, ${countWords(board.sides, 'side')}`}
            </SmallButton>
          </li>
        ))}
      </Group>
      <Modal
        opened={opened !== null}
        onClose={() => setOpened(null)}
        title={opened && `Board: ${opened.title}`}
        size="xl"
        centered
      >
        {opened && <OneBoard session={session} place={opened.place} name={`${name}, ${opened.title}`} />}
      </Modal>
    </Panel>
  );
}

const nobody = () => 'somebody';

function OneBoard({ session, place, name }: { session: string; place: string; name: string }) {
  const { data, error } = useAsked<KeptBoard>(`/sessions/${session}/boards/${place}`);
  const [side, setSide] = useState(1);
  if (error) return <Fault error={error} />;
  if (!data) return <Loader aria-label="Fetching the board" />;
  const { sides } = data;
  return (
    <Stack gap="sm">
      <div style={{ display: 'flex', aspectRatio: '16 / 9', border: '1px solid var(--line)' }}>
        <Surface on={sides[side - 1]!} nameOf={nobody} />
      </div>
      <Group gap={8}>
        {sides.length > 1 && (
          <>
            <SmallButton disabled={side === 1} onClick={() => setSide(side - 1)}>
              Side before
            </SmallButton>
            <Text size="sm" className="figures">
              Side {side} of {sides.length}
            </Text>
            <SmallButton disabled={side === sides.length} onClick={() => setSide(side + 1)}>
              Next side
            </SmallButton>
          </>
        )}
        <SaveAs on={(s) => sides[s - 1]!} {...{ side, name }} sides={sides.length} />
      </Group>
    </Stack>
  );
}
