import { Select } from '@mantine/core';
import { useState } from 'react';
import { postJson } from '../api/client';
import { roundOptions } from '../api/queries';
import type { RoundView } from '../api/schema';
import { useWrite } from '../api/write';
import { Button } from '../ui/Button';
import { Wrong } from '../ui/Wrong';

/** Gives one more paper to somebody, by hand. */
export function GiveOne({ round }: { round: RoundView }) {
  const [reviewer, setReviewer] = useState<string | null>(null);
  const [author, setAuthor] = useState<string | null>(null);
  const give = useWrite(
    () =>
      postJson<RoundView>(`/api/prompts/${round.promptId}/peer-round/reviews`, {
        reviewer: Number(reviewer),
        author: Number(author),
      }),
    {
      here: true,
      fills: roundOptions(round.promptId).queryKey,
      onDone: () => setAuthor(null),
    },
  );
  const people = round.people.map((p) => ({ value: String(p.id), label: p.name }));
  return (
    <section className="above-6 measure-s">
      <h2 className="below-3">Give one more</h2>
      <Select
        label="Who reads"
        searchable
        placeholder="Choose a student"
        data={people}
        value={reviewer}
        onChange={setReviewer}
      />
      <Select
        className="above-3"
        label="Whose paper"
        searchable
        placeholder="Choose a paper"
        data={people.filter((p) => p.value !== reviewer)}
        value={author}
        onChange={setAuthor}
      />
      <Wrong says={give.problem} />
      <p className="above-4">
        <Button disabled={!reviewer || !author || give.busy} onClick={() => give.run()}>
          Give it
        </Button>
      </p>
    </section>
  );
}
