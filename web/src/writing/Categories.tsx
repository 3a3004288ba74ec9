import { TextInput } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { putJson } from '../api/client';
import { categoriesOptions } from '../api/queries';
import type { Category } from '../api/schema';
import { useWrite } from '../api/write';
import { Button } from '../ui/Button';
import { Word } from '../ui/Word';
import { Wrong } from '../ui/Wrong';

/** The categories of a class, kept by its teachers: named, ordered, taken away. */
export function Categories({ classId }: { classId: number }) {
  const { data } = useQuery(categoriesOptions(classId));
  return data ? <List key={data.map((c) => c.id + c.name).join()} classId={classId} now={data} /> : null;
}

function List({ classId, now }: { classId: number; now: Category[] }) {
  const [list, setList] = useState<{ id?: number; name: string }[]>(now);
  const changed = JSON.stringify(list.filter((c) => c.name.trim())) !== JSON.stringify(now);
  const save = useWrite(() => putJson(`/api/classes/${classId}/categories`, list), {
    here: true,
    stale: [
      ['categories', classId],
      ['porch', classId],
    ],
  });
  const up = (i: number) => setList(list.map((c, j) => (j === i - 1 ? list[i] : j === i ? list[i - 1] : c)));
  return (
    <section className="above-6" aria-label="Categories">
      <h2>Categories</h2>
      <p className="muted above-1 below-3">
        A post can stand in one. When you take one away, its posts stay and stand in none.
      </p>
      {list.map((c, i) => (
        <div className="row middle below-2" key={c.id ?? `new${i}`}>
          <TextInput
            className="w-line"
            aria-label={`Category ${i + 1}`}
            size="sm"
            value={c.name}
            autoFocus={!c.id && !c.name}
            onChange={(e) => setList(list.map((x, j) => (j === i ? { ...x, name: e.target.value } : x)))}
          />
          {i > 0 && (
            <Word tiny onClick={() => up(i)} aria-label={`Up with ${c.name}`}>
              Up
            </Word>
          )}
          <Word tiny onClick={() => setList(list.filter((_, j) => j !== i))} aria-label={`Take away ${c.name}`}>
            Take away
          </Word>
        </div>
      ))}
      <p className="row above-3 below-0">
        <Button onClick={() => setList([...list, { name: '' }])}>Another category</Button>
        {changed && (
          <Button go onClick={() => save.run()}>
            Keep the categories
          </Button>
        )}
      </p>
      <Wrong says={save.problem} />
    </section>
  );
}
