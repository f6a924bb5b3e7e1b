/** Numbers that look drawn, the same again for the same seed (mulberry32): a failure can be walked again. */
export class Chance {
  constructor(public seed: number) {}
  next(): number {
    this.seed = (this.seed + 0x6d2b79f5) | 0;
    let t = Math.imul(this.seed ^ (this.seed >>> 15), 1 | this.seed);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  }
  between(low: number, high: number): number {
    return low + this.next() * (high - low);
  }
  of<T>(choices: readonly T[]): T {
    return choices[Math.floor(this.next() * choices.length)]!;
  }
}
