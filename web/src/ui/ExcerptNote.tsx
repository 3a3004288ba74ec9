/** Says of a gathered post whose feed carries only its beginning how much of it stands here. */
export function ExcerptNote({ excerpt }: { excerpt?: 'BEGINNING' | 'COMPLETED' }) {
  if (!excerpt) return null;
  return (
    <p className="muted less above-2 below-0">
      {excerpt === 'BEGINNING'
        ? 'Only its beginning came here; the rest stands on its own page.'
        : 'Its feed carries only the beginning; the text was taken from its own page.'}
    </p>
  );
}
