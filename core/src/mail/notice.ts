import { z } from 'zod';
import { tidyProse } from '../text';

const Mark = z.object({
  type: z.enum(['bold', 'italic', 'underline', 'strike', 'link']),
  attrs: z
    .object({ href: z.string().max(1000) })
    .partial()
    .optional(),
});
export interface NoticeNode {
  type: string;
  text?: string | undefined;
  marks?: z.infer<typeof Mark>[] | undefined;
  attrs?: { level?: number | undefined; date?: string | undefined; start?: number | undefined } | undefined;
  content?: NoticeNode[] | undefined;
}
/** The nodes that a notice may hold; `dayPlan` is filled in from the plan when it is read. */
export const NoticeNode: z.ZodType<NoticeNode> = z.lazy(() =>
  z.object({
    type: z.enum([
      'doc',
      'paragraph',
      'heading',
      'bulletList',
      'orderedList',
      'listItem',
      'text',
      'hardBreak',
      'blockquote',
      'dayPlan',
    ]),
    text: z.string().max(10_000).transform(tidyProse).optional(),
    marks: z.array(Mark).max(5).optional(),
    attrs: z
      .object({ level: z.int().min(1).max(4), date: z.string().max(10), start: z.int() })
      .partial()
      .optional(),
    content: z.array(NoticeNode).max(500).optional(),
  }),
);
