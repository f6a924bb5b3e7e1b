import type { ComponentPropsWithRef } from 'react';
import classes from './smallButton.module.css';

interface Props extends ComponentPropsWithRef<'button'> {
  /** It stands out: something is apart from what it should be. */
  apart?: boolean;
  wide?: boolean;
}

/** A small plain button, as high as a finger where one is used. */
export const SmallButton = ({ apart = false, wide = false, className, ...rest }: Props) => (
  <button
    type="button"
    data-apart={apart}
    data-wide={wide}
    {...rest}
    className={className ? `${classes.small} ${className}` : classes.small}
  />
);
