import { NavLink } from 'react-router';
import classes from './parts.module.css';

/** The parts of a stage, side by side under the path; what leads elsewhere stands at the end. */
export function Parts(props: {
  label: string;
  parts: readonly (readonly [to: string, label: string])[];
  elsewhere?: readonly [to: string, label: string];
}) {
  return (
    <nav className={classes.parts} aria-label={props.label}>
      {props.parts.map(([to, label]) => (
        <NavLink key={label} to={to} end className={classes.part!}>
          {label}
        </NavLink>
      ))}
      <span className={classes.grow} />
      {props.elsewhere && (
        <NavLink to={props.elsewhere[0]} className={classes.part!}>
          {props.elsewhere[1]}
        </NavLink>
      )}
    </nav>
  );
}
