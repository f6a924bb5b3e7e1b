import type { APIRequestContext } from '@playwright/test';
import { io, type Socket } from 'socket.io-client';
import { BASE_URL } from './product';

/** A socket by a link or as an account, as a page opens one. */
export const live = ({ link, cookie: own }: { link?: string; cookie?: string }): Socket =>
  io(BASE_URL, {
    path: '/live',
    transports: ['websocket'],
    forceNew: true,
    reconnection: false,
    ...(link ? { auth: { link } } : {}),
    ...(own ? { extraHeaders: { cookie: own } } : {}),
  });

/** An account's sign-in, as a browser sends it. */
export const cookie = async (api: APIRequestContext) => {
  const { cookies } = await api.storageState();
  return cookies.map((c) => `${c.name}=${c.value}`).join('; ');
};
