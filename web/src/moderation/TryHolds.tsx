import { Textarea } from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { postJson } from '../api/client';
import type { Hold } from '../api/schema';
import { t } from '../texts/en';

/** A box in which staff see what the rules of the class, as they are saved, would hold. */
export function TryHolds({ classId, version }: { classId: number; version: number }) {
  const [text, setText] = useState('');
  const [tried] = useDebouncedValue(text, 250);
  const { data } = useQuery({
    queryKey: ['try-holds', classId, version, tried],
    queryFn: () => postJson<Hold[]>(`/api/classes/${classId}/holds/try`, { text: tried }),
    enabled: tried.trim().length > 0,
    placeholderData: (before) => before,
  });
  return (
    <section className="above-5">
      <h2 className="smaller">Try a sentence</h2>
      <Textarea
        aria-label="A sentence to try"
        description="See what would be held, by the rules as they are saved."
        autosize
        minRows={2}
        mt={6}
        value={text}
        onChange={(e) => setText(e.target.value)}
      />
      <p className={`tell ${`above-3 below-0 ${tried.trim() && data ? '' : 'unseen'}`}`} role="status">
        {!data || data.length === 0
          ? 'Nothing of this is held.'
          : data.map((h, i) => (
              <span key={i}>
                {i > 0 && ', '}
                <mark>{h.found}</mark>: {t.holds[h.rule]}
              </span>
            ))}
      </p>
    </section>
  );
}
