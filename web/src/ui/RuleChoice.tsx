import { Radio } from '@mantine/core';
import { useQueryClient } from '@tanstack/react-query';
import { type ReactNode, useState } from 'react';
import { useWrite } from '../api/write';
import { Wrong } from './Wrong';

interface RuleChoiceProps {
  title: string;
  label: string;
  choices: { value: string; label: string }[];
  /** The rule as it was read; what is sent says that it was seen, so that nobody writes over a colleague's choice. */
  rule: string;
  queryKey: readonly unknown[];
  send: (rule: string, seen: string) => Promise<unknown>;
  children: ReactNode;
}

/** One rule of a class of which one choice holds; it is kept as soon as it is chosen. */
export function RuleChoice({ title, label, choices, rule, queryKey, send, children }: RuleChoiceProps) {
  const client = useQueryClient();
  const [chosen, setChosen] = useState<string>();
  const set = useWrite((wanted: string) => send(wanted, rule), {
    here: true,
    stale: [queryKey],
    onWrong: () => {
      setChosen(undefined);
      void client.invalidateQueries({ queryKey });
    },
  });
  return (
    <section className="above-6">
      <h2>{title}</h2>
      <Radio.Group
        className="above-2"
        aria-label={label}
        value={chosen ?? rule}
        onChange={(wanted) => {
          setChosen(wanted);
          set.run(wanted);
        }}
      >
        {choices.map((c) => (
          <Radio key={c.value} className="above-1" value={c.value} label={c.label} />
        ))}
      </Radio.Group>
      <p className="tiny muted above-2 below-0">{children}</p>
      <Wrong says={set.problem} />
    </section>
  );
}
