import { useQuery } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import { meOptions } from '../api/queries';
import type { PromptView } from '../api/schema';
import { useClass } from '../session/useClass';

/** Takes a prompt along into another class that one teaches; there it is looked at before it is set. */
export function CopyElsewhere({ prompt }: { prompt: PromptView }) {
  const { id } = useClass();
  const { data: me } = useQuery(meOptions);
  const navigate = useNavigate();
  const others = me?.classes.filter((c) => c.manages && c.id !== id) ?? [];
  if (others.length === 0) return null;
  return (
    <>
      <select
        className="pick"
        aria-label={`Copy to another class: ${prompt.title}`}
        value=""
        onChange={(e) => navigate(`/classes/${e.target.value}/prompts/new?from=${prompt.id}&elsewhere=yes`)}
      >
        <option value="">Copy to another class…</option>
        {others.map((c) => (
          <option key={c.id} value={c.id}>
            {c.name}
          </option>
        ))}
      </select>
      {' · '}
    </>
  );
}
