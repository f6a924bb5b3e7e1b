import { startProduct } from './product';

/** The product runs for all tests; what this gives ends it. */
export default async function globalSetup() {
  return startProduct();
}
