import { z } from 'zod';
import { ROLES } from './role';

export const Role = z.enum(ROLES);
export type Role = z.infer<typeof Role>;
