import { Modal } from '@mantine/core';
import { known } from '../app/line';
import SignInForm from './SignInForm';

/** Whoever is not signed in any more does it where they are: what they typed stays beneath. */
export default function SignInAgain() {
  return (
    <Modal opened onClose={known} title="Sign in again">
      <SignInForm done={known} about="You have been away for long. What you typed is still on the page." />
    </Modal>
  );
}
