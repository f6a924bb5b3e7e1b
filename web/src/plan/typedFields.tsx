import { Text, TextInput, type TextInputProps } from '@mantine/core';
import { memo, startTransition, useCallback, useEffect, useMemo, useRef, useState } from 'react';
import type { ChangeEvent, WheelEvent } from 'react';
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
  const { value, onChange, onFocus, onBlur, ...props } = form.getInputProps(path);
  // What was typed, over which of the form's values: the one it had, and what it got since.
  const [own, setOwn] = useState<{ typed: V; over: unknown[] } | null>(null);
  const shown: V = own?.over.includes(value) ? own.typed : value;
  const newest = useRef({ value, onChange });
  useEffect(() => {
    newest.current = { value, onChange };
  });
  const type = useCallback(
    (typed: V) => {
      const { value, onChange } = newest.current;
      setOwn((was) => ({
        typed,
        over: [...(was?.over.includes(value) ? was.over : [value]), typed].slice(-20),
      }));
      startTransition(() => onChange(typed));
    },
    [setOwn],
  );
  // The form's own handlers go by reference and by path, so that the first serve for as long as the path stays.
  const [handlers, setHandlers] = useState({ path, onFocus, onBlur });
  if (handlers.path !== path) setHandlers({ path, onFocus, onBlur });
  return { props: { ...props, onFocus: handlers.onFocus, onBlur: handlers.onBlur }, shown, type };
}

// The form follows what is shown already: the parts a field is made of are not drawn a second time for that.
const Words = memo((props: TextInputProps) => <TextInput {...props} />);

/** Some browsers count by the wheel: who scrolls over a field changes nothing in it. */
const leave = (e: WheelEvent<HTMLInputElement>) => e.currentTarget.blur();

/** A number, empty while none can be read, by the browser's own field: its keys, its reader's digits, and quick. */
export function NumberField({
  form,
  path,
  unit,
  ...more
}: Typed & Omit<TextInputProps, 'form'> & { unit?: string }) {
  const { props, shown, type } = useTyped<number | ''>({ form, path });
  const write = useCallback(
    (e: ChangeEvent<HTMLInputElement>) =>
      type(e.currentTarget.value === '' ? '' : e.currentTarget.valueAsNumber),
    [type],
  );
  const said = useMemo(
    () =>
      unit && {
        'aria-description': unit,
        rightSection: (
          <Text size="sm" c="dimmed">
            {unit}
          </Text>
        ),
        rightSectionWidth: `${unit.length + 2}ch`,
        rightSectionPointerEvents: 'none' as const,
      },
    [unit],
  );
  return (
    <Words type="number" onWheel={leave} {...said} {...more} {...props} value={shown} onChange={write} />
  );
}

export function TextField({ form, path, ...more }: Typed & Omit<TextInputProps, 'form'>) {
  const { props, shown, type } = useTyped<string>({ form, path });
  const write = useCallback((e: ChangeEvent<HTMLInputElement>) => type(e.currentTarget.value), [type]);
  return <Words {...more} {...props} value={shown} onChange={write} />;
}
