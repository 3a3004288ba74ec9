import { type ReactNode, useId, useState } from 'react';
import css from './Compose.module.css';

interface RuleProps {
  /** The rule as a sentence; what can be changed of it stands in bold. */
  says: ReactNode;
  /** What the rule is about, for those who do not see where the sentence stands. */
  label: string;
  /** Whether something in it is wrong, so that it stands open. */
  wrong?: boolean;
  children: ReactNode;
}

/** A rule of a prompt: a sentence that opens to be changed. */
export function Rule({ says, label, wrong = false, children }: RuleProps) {
  const [opened, setOpened] = useState(false);
  const id = useId();
  const open = opened || wrong;
  return (
    <section className={`${css.rule} ${open ? css.open : ''}`} aria-label={label}>
      <button
        type="button"
        className={css.sentence}
        aria-expanded={open}
        aria-controls={id}
        onClick={() => setOpened(!opened)}
      >
        {says}
      </button>
      <div id={id} hidden={!open} className={css.fields}>
        {children}
      </div>
    </section>
  );
}
