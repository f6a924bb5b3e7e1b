import { Button } from '@mantine/core';
import { useOwnLine } from '../live/ownLine';
import classes from './frame.module.css';

/** That one's own connection is weak, and what comes of it. */
export function Weak() {
  const { line, wanted, want } = useOwnLine();
  if (line === 'good') return null;
  const poor = line === 'poor' && !wanted;
  return (
    <div className={classes.turn}>
      <span role="status">
        {poor
          ? 'Your connection is poor. Pictures are off so that the sound stays; they come back by themselves.'
          : 'Your connection is weak. Others may see you later or smaller.'}
      </span>
      {poor && (
        <Button size="xs" variant="default" onClick={want}>
          Pictures all the same
        </Button>
      )}
    </div>
  );
}
