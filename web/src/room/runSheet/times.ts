export interface Times {
  startsAt: number;
  endsAt: number;
  lingerMinutes: number;
}
