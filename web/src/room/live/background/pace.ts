/** Fewer frames a second than this are no picture of somebody who moves. */
const LEAST_FRAMES = 15;
/** The first ones take long: programs are fetched and made ready. */
const WARMING = 5;
/** So many are looked at together: one that took long says nothing. */
const TOGETHER = 20;

/** Whether a device keeps up with drawing what is behind somebody, by how long each frame took. */
export class Pace {
  #warm = 0;
  #took: number[] = [];

  /** One more frame took so long, ms. Gives false where half of the last ones took too long. */
  holds(ms: number): boolean {
    if (this.#warm++ < WARMING) return true;
    this.#took.push(ms);
    if (this.#took.length < TOGETHER) return true;
    const middle = this.#took.sort((a, b) => a - b)[TOGETHER / 2]!;
    this.#took = [];
    return middle <= 1000 / LEAST_FRAMES;
  }
}
