import { useEffect, useState } from 'react';

/** The devices that there are, told again when one is plugged in or out. */
export function useDevices(): readonly MediaDeviceInfo[] {
  const [all, setAll] = useState<readonly MediaDeviceInfo[]>([]);
  useEffect(() => {
    const { mediaDevices } = navigator;
    let gone = false;
    const look = () =>
      void mediaDevices?.enumerateDevices().then(
        (found) => !gone && setAll(found),
        () => {},
      );
    look();
    mediaDevices?.addEventListener?.('devicechange', look);
    return () => {
      gone = true;
      mediaDevices?.removeEventListener?.('devicechange', look);
    };
  }, []);
  return all;
}
