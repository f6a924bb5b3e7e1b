import { Text } from '@mantine/core';
import { useId, type ReactNode } from 'react';

interface Props {
  /** What the fields are together. */
  label: string;
  fault: ReactNode;
  className?: string | undefined;
  children: ReactNode;
}

/** Fields with a fault that is about all of them: said at once, and again to whoever comes into them. */
export function Faulty({ label, fault, className, children }: Props) {
  const id = useId();
  return (
    <div>
      <div
        role="group"
        className={className}
        aria-label={label}
        aria-describedby={fault ? id : undefined}
        data-fault={fault ? '' : undefined}
      >
        {children}
      </div>
      {fault && (
        <Text id={id} size="sm" c="var(--clay)" role="alert" mt={4}>
          {fault}
        </Text>
      )}
    </div>
  );
}
