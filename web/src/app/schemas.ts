import { z } from 'zod';

// The content policy forbids code made at run time; said before any schema is made.
z.config({ jitless: true });
