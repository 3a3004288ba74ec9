import { TextInput } from '@mantine/core';
import { Chip } from '../ui/Chip';
import { Word } from '../ui/Word';
import { Wrong } from '../ui/Wrong';
import css from './Blog.module.css';

const NAME = '{name}';

interface TitleFieldProps {
  value: string;
  onChange: (title: string) => void;
  /** Whose name stands in the title, such as "each student"; left out where no name does. */
  whose?: string;
  error?: React.ReactNode;
  disabled?: boolean;
}

/** The title of a blog. Where it is made for each student or group, the name is a chip between the words before and after it. */
export function TitleField({ value, onChange, whose, error, disabled }: TitleFieldProps) {
  if (!whose)
    return (
      <TextInput
        label="Title"
        name="title"
        mt="md"
        disabled={disabled}
        error={error}
        value={value}
        onChange={(e) => onChange(e.target.value)}
      />
    );
  const at = value.indexOf(NAME);
  if (at < 0)
    return (
      <div>
        <TextInput
          label="Title"
          name="title"
          mt="md"
          disabled={disabled}
          error={error}
          value={value}
          onChange={(e) => onChange(e.target.value)}
        />
        <Chip onClick={() => onChange(`${value.trim()} ${NAME}`.trim())}>Put in the name of {whose}</Chip>
      </div>
    );
  const before = value.slice(0, at);
  const after = value.slice(at + NAME.length);
  return (
    <fieldset className={css.titleField}>
      <legend>Title</legend>
      <TextInput
        aria-label="Title, before the name"
        name="title"
        disabled={disabled}
        error={!!error}
        value={before}
        onChange={(e) => onChange(e.target.value + NAME + after)}
      />
      <span className={`chip ${css.nameChip}`}>
        name of {whose}
        {!disabled && (
          <Word
            aria-label="Take the name out of the title"
            onClick={() => onChange(`${before}${after}`.replace(/\s+/g, ' ').trim())}
          >
            ×
          </Word>
        )}
      </span>
      <TextInput
        aria-label="Title, after the name"
        disabled={disabled}
        error={!!error}
        value={after}
        onChange={(e) => onChange(before + NAME + e.target.value)}
      />
      <Wrong says={error} />
    </fieldset>
  );
}
