import { Anchor } from '@mantine/core';
import { addressOf } from './address';

/** An address of the web in the middle of what somebody wrote, with what may stand behind it. */
const ADDRESS = /((?:https?:\/\/|www\.)[^\s<>"“”«»]+)/gi;
/** What ends a sentence or closes what was opened before the address is none of it. */
const BEHIND = /[.,;:!?'’…؟،؛。、)\]}]+$/;
const BEHIND_BUT_BRACKETS = /[.,;:!?'’…؟،؛。、\]}]+$/;

/** An address and what stands behind it; brackets that it has opened itself are its own. */
function parted(found: string): [address: string, rest: string] {
  const own = found.replace(found.includes('(') ? BEHIND_BUT_BRACKETS : BEHIND, '');
  return [own, found.slice(own.length)];
}

/** What somebody wrote; addresses of the web in it lead there, in a page of their own that is not told from where. */
export function Linked({ text }: { text: string }) {
  return text.split(ADDRESS).map((part, i) => {
    const [typed, rest] = i % 2 ? parted(part) : ['', part];
    const to = addressOf(typed);
    if (!to) return typed + rest;
    return (
      <span key={i}>
        <Anchor href={to} target="_blank" rel="noreferrer noopener nofollow" underline="always" inherit>
          {typed}
        </Anchor>
        {rest}
      </span>
    );
  });
}
