/** A letter as mail programs show it; nothing in it runs or is fetched. */
export const LetterPaper = ({
  title,
  html,
  height = 420,
}: {
  title: string;
  html: string;
  height?: number;
}) => (
  <iframe
    title={title}
    sandbox=""
    srcDoc={html}
    style={{ width: '100%', height, border: '1px solid var(--line)', borderRadius: 6 }}
  />
);
