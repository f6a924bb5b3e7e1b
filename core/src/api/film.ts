/** Where what a class watches together is had by whoever asked: an address for a media element. */
export interface FilmAddress {
  path: string;
}
