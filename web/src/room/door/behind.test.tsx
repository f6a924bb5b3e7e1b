import { fireEvent, screen, waitFor } from '@testing-library/react';
import { show } from '../../testing/render';
import { asJpeg } from '../../ui/asJpeg';
import { chooseDevices, ownDevices } from '../live/ownDevices';
import { BehindChoice } from './BehindChoice';

jest.mock('../../ui/asJpeg', () => ({ ...jest.requireActual('../../ui/asJpeg'), asJpeg: jest.fn() }));

test('what is behind one is chosen, and a picture once there is one; what is no picture is said', async () => {
  chooseDevices({ behind: 'plain', behindPicture: '' });
  const changed = jest.fn();
  show(<BehindChoice changed={changed} />);
  const choice = screen.getByLabelText('Behind you');
  fireEvent.change(choice, { target: { value: 'blurred' } });
  expect([ownDevices.get().behind, changed.mock.calls.length]).toEqual(['blurred', 1]);
  fireEvent.change(choice, { target: { value: 'picture' } });
  expect(changed).toHaveBeenCalledTimes(1);
  const file = document.querySelector<HTMLInputElement>('input[type=file]')!;
  const take = (name: string) => fireEvent.change(file, { target: { files: [new File(['x'], name)] } });
  jest.mocked(asJpeg).mockRejectedValueOnce(new Error('no picture'));
  take('notes.txt');
  expect((await screen.findByRole('alert')).textContent).toContain('no picture that the browser can read');
  expect(changed).toHaveBeenCalledTimes(1);
  jest.mocked(asJpeg).mockResolvedValueOnce({ data: 'data:image/jpeg;base64,AA', width: 1, height: 1 });
  take('harbour.jpg');
  await waitFor(() => expect(changed).toHaveBeenCalledTimes(2));
  expect(ownDevices.get()).toMatchObject({ behind: 'picture', behindPicture: 'data:image/jpeg;base64,AA' });
  expect(screen.queryByRole('alert')).toBeNull();
  expect(screen.getByAltText('The picture behind you')).toBeTruthy();
});
