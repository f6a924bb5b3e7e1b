import { contourDensity, geoPath } from 'd3';
import type { OnPicture } from '@nimble-bell/core/questions';
import classes from './questions.module.css';

/** How far a place reaches, in units of the picture's width. */
const REACH = 32;
const RINGS = 5;

interface Props {
  points: readonly OnPicture[];
  size: readonly [width: number, height: number];
}

/** Where the places are dense, as rings: the darker, the denser. */
export default function Density({ points, size: [width, height] }: Props) {
  const rings = contourDensity<OnPicture>()
    .x(({ x }) => x * width)
    .y(({ y }) => y * height)
    .size([width, height])
    .bandwidth(REACH)
    .thresholds(RINGS)([...points]);
  const path = geoPath();
  return rings.map((ring, i) => <path key={i} d={path(ring) ?? ''} className={classes.ring} />);
}
