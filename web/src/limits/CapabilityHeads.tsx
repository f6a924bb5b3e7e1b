import { memo } from 'react';
import { rowOf, CAPABILITY_IDS } from '@nimble-bell/core/limits';

/** The heads of a table with a column for each thing a student may do; before them and after them its own. */
export const CapabilityHeads = memo(function CapabilityHeads({
  before,
  after,
}: {
  before: readonly string[];
  after?: string;
}) {
  const heads = [...before, ...CAPABILITY_IDS.map((c) => rowOf(c).label), ...(after ? [after] : [])];
  return (
    <thead>
      <tr>
        {heads.map((head) => (
          <th key={head} scope="col">
            {head}
          </th>
        ))}
      </tr>
    </thead>
  );
});
