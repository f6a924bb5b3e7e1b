import { Kbd, Modal, Table } from '@mantine/core';
import { Begin } from '../../ui/Begin';
import { FILM_KEYS, keyWords } from './useFilmKeys';

/** The keys of the watch page. */
export default function KeyList({ close }: { close: () => void }) {
  return (
    <Modal opened onClose={close} title={<Begin>Keys while watching</Begin>}>
      <Table>
        <Table.Thead>
          <Table.Tr>
            <Table.Th scope="col">What it does</Table.Th>
            <Table.Th scope="col">Key</Table.Th>
          </Table.Tr>
        </Table.Thead>
        <Table.Tbody>
          {Object.entries(FILM_KEYS).map(([key, words]) => (
            <Table.Tr key={key}>
              <Table.Td>{words}</Table.Td>
              <Table.Td>
                <Kbd>{keyWords(key)}</Kbd>
              </Table.Td>
            </Table.Tr>
          ))}
        </Table.Tbody>
      </Table>
    </Modal>
  );
}
