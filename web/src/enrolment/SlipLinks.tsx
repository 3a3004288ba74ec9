/** The sign-in slips of a class, for the paper that the printer has. */
export function SlipLinks({ classId, says }: { classId: number; says: string }) {
  const link = (paper: string, name: string) => (
    <a className="word" href={`/api/classes/${classId}/slips.pdf?paper=${paper}`} target="_blank" rel="noopener">
      {name}
    </a>
  );
  return (
    <span>
      {says} on {link('A4', 'A4')} or {link('LETTER', 'US letter')}
    </span>
  );
}
