import { NumberInput, TextInput, type NumberInputProps, type TextInputProps } from '@mantine/core';
import { startTransition, useState } from 'react';
import type { UseFormReturnType } from '@mantine/form';
import type { SeriesForm } from './seriesForm';

interface Typed {
  form: UseFormReturnType<SeriesForm>;
  path: string;
}

/**
 * A field of a form that shows at once what is typed: the form has it in the same moment, all that is drawn by the form
 * follows and gives way to the next key. What others set in the form is shown as soon as it is not of this field's own.
 */
function useTyped<V>({ form, path }: Typed) {
  const { value, onChange, ...props } = form.getInputProps(path);
  // What was typed, over which of the form's values: the one it had, and what it got since.
  const [own, setOwn] = useState<{ typed: V; over: unknown[] } | null>(null);
  const shown: V = own?.over.includes(value) ? own.typed : value;
  const type = (typed: V) => {
    setOwn((was) => ({
      typed,
      over: [...(was?.over.includes(value) ? was.over : [value]), typed].slice(-20),
    }));
    startTransition(() => onChange(typed));
  };
  return { props, shown, type };
}

export function NumberField({ form, path, ...more }: Typed & Omit<NumberInputProps, 'form'>) {
  const { props, shown, type } = useTyped<number | string>({ form, path });
  return <NumberInput {...more} {...props} value={shown} onChange={type} />;
}

export function TextField({ form, path, ...more }: Typed & Omit<TextInputProps, 'form'>) {
  const { props, shown, type } = useTyped<string>({ form, path });
  return <TextInput {...more} {...props} value={shown} onChange={(e) => type(e.currentTarget.value)} />;
}
