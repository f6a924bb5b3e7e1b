import { useLocalStorage } from '@mantine/hooks';

/** Whether the names pass before it is said who is asked: as one likes it, on this machine. */
export const useSlowly = () => useLocalStorage({ key: 'nimble-bell-pick-slowly', defaultValue: false });
