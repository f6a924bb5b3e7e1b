import { Navigate } from 'react-router';
import { homeOf } from '../offline/register';

/** Where the product opens from a phone's first screen: wherever one was at home last. */
export const StartPage = () => <Navigate to={homeOf()} replace />;
