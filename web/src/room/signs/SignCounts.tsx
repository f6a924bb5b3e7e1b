import { useInside, useNameOf, type Inside } from '../live/useRoom';
import parts from '../frame/parts.module.css';
import { SignBars } from './SignBars';

const select = ({ room }: Inside) => room.signs;

/** The signs that are given now. */
export default function SignCounts() {
  const signs = useInside(select, Object.is);
  const nameOf = useNameOf();
  return (
    <>
      <h2 className={parts.heading}>Signs</h2>
      <SignBars signs={signs} nameOf={nameOf} />
    </>
  );
}
