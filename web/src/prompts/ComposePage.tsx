import { Checkbox } from '@mantine/core';
import { useForm } from '@mantine/form';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useDeferredValue, useState } from 'react';
import { useNavigate, useParams, useSearchParams } from 'react-router';
import { postJson, putJson, sentenceOf, withParams } from '../api/client';
import { editablePromptOptions } from '../api/queries';
import type { Editable, Effects, Repeated } from '../api/schema';
import { useWrite } from '../api/write';
import { useClass } from '../session/useClass';
import { t } from '../texts/en';
import { Button } from '../ui/Button';
import { Loading, Trouble } from '../ui/Trouble';
import { Word } from '../ui/Word';
import { Wrong } from '../ui/Wrong';
import { ChangeEffects } from './ChangeEffects';
import css from './Compose.module.css';
import { PromptText } from './PromptText';
import { RubricBuilder } from './RubricBuilder';
import { RubricLook } from './RubricLook';
import { RubricSource } from './RubricSource';
import { Rules } from './Rules';
import { beginning, toForm, toWanted } from './wanted';

/** A prompt on the page on which its reader will read it: set anew, from another one, or changed. */
export function ComposePage() {
  const { promptId } = useParams();
  const [params] = useSearchParams();
  const from = Number(promptId ?? params.get('from'));
  const weeks = promptId ? 0 : Number(params.get('weeks') ?? 0);
  const source = useQuery({ ...editablePromptOptions(from, weeks), enabled: from > 0 });
  if (source.isError)
    return (
      <div className="page wide">
        <Trouble error={source.error} onRetry={() => source.refetch()} />
      </div>
    );
  if (from && !source.data)
    return (
      <div className="page wide">
        <Loading lines={9} />
      </div>
    );
  return (
    <Compose
      key={`${from} ${weeks}`}
      known={source.data}
      id={promptId ? from : undefined}
      copied={promptId ? undefined : from || undefined}
      elsewhere={params.has('elsewhere')}
    />
  );
}

interface ComposeProps {
  /** The prompt that is changed or copied; without it one begins anew. */
  known?: Editable;
  /** The number of the prompt that is changed; without it another one is set. */
  id?: number;
  /** The number of the prompt that is copied. */
  copied?: number;
  /** Whether it is copied from another class: what only that class has is left there. @default false */
  elsewhere?: boolean;
}

function Compose({ known, id, copied, elsewhere = false }: ComposeProps) {
  const { id: classId, name } = useClass();
  const navigate = useNavigate();
  const [reason, setReason] = useState('');
  const [following, setFollowing] = useState(false);
  const form = useForm({
    initialValues: known
      ? {
          ...toForm(known.prompt),
          ...(id ? {} : { bundleId: '' }),
          ...(elsewhere ? { byCategory: '', commentOn: [], into: '' } : {}),
        }
      : beginning(),
  });
  const [withExample, setWithExample] = useState(Boolean(known?.prompt.example));
  const before = id ? known?.prompt : undefined;
  const list = `/classes/${classId}/prompts`;
  const changed = JSON.stringify(form.values) !== JSON.stringify(form.getInitialValues());
  const looked = useDeferredValue(JSON.stringify(toWanted(form.values, before)));
  // What one types is looked at as it is typed; what cannot be yet is said when it is sent.
  const effects = useQuery({
    queryKey: ['prompt-effects', id, looked, following],
    queryFn: () => postJson<Effects>(withParams(`/api/prompts/${id}/look`, { following }), JSON.parse(looked)),
    enabled: Boolean(id) && changed,
    placeholderData: keepPreviousData,
    retry: false,
    gcTime: 0,
  });
  const set = useWrite(
    () =>
      id && known
        ? putJson(`/api/prompts/${id}`, { rev: known.rev, prompt: toWanted(form.values, before), reason, following })
        : postJson(`/api/classes/${classId}/prompts`, { ...toWanted(form.values), copyOf: copied }),
    { form, stale: [[]], onDone: () => navigate(list) },
  );
  const repeat = useWrite(() => postJson<Repeated>(`/api/classes/${classId}/prompts/repeat`, toWanted(form.values)), {
    form,
    stale: [[]],
    onDone: () => navigate(list),
  });
  const busy = set.busy || repeat.busy;
  const needsReason = Boolean(changed && effects.data?.needsReason);
  return (
    <form className={css.page} onSubmit={form.onSubmit(() => set.run())}>
      <title>{`${id ? form.values.title : 'Set a prompt'} · ${name}`}</title>
      <main className={css.paper}>
        <h1 className="away">{id ? 'Change the prompt' : 'Set a prompt'}</h1>
        <input
          className={css.title}
          aria-label="Title"
          placeholder="Title"
          autoFocus={!id}
          aria-invalid={Boolean(form.errors.title)}
          {...form.getInputProps('title')}
        />
        {form.errors.title && <p className={css.wrong}>{form.errors.title}</p>}
        <PromptText
          classId={classId}
          html={form.values.instructions}
          label="What to write"
          onChange={(html) => form.setFieldValue('instructions', html)}
        />
        {form.errors.instructions && <p className={css.wrong}>{form.errors.instructions}</p>}
        <textarea
          className={css.questions}
          aria-label="Guiding questions, one to a line"
          placeholder="Guiding questions, one to a line"
          {...form.getInputProps('questions')}
        />
        <h2>Begins with</h2>
        <textarea
          className={css.starter}
          aria-label="Beginning of the text, if you give one"
          placeholder="Nothing: a blank page"
          {...form.getInputProps('starter')}
        />
        <h2>An example</h2>
        {withExample ? (
          <PromptText
            classId={classId}
            html={form.values.example}
            label="An example of an answer"
            onChange={(html) => form.setFieldValue('example', html)}
          />
        ) : (
          <p className="tiny muted above-2 below-0">
            <Word onClick={() => setWithExample(true)}>Write one here</Word>, or ask for a student’s post on the page of
            the prompt once it is set.
          </p>
        )}
        {form.errors.example && <p className={css.wrong}>{form.errors.example}</p>}
      </main>
      <aside className={`sill ${css.sill}`} aria-label="Its rules">
        <Rules classId={classId} form={form} />
        {id && known && known.following > 0 && (
          <Checkbox
            className="above-4"
            label={
              known.following === 1
                ? 'The one that follows changes with it'
                : `The ${known.following} that follow change with it`
            }
            description="Each keeps its title; its times move by whole weeks."
            checked={following}
            onChange={(e) => setFollowing(e.currentTarget.checked)}
          />
        )}
        {id && changed && effects.data && !effects.error && (
          <ChangeEffects
            effects={effects.data}
            reason={reason}
            onReason={setReason}
            reasonMissing={needsReason && !reason.trim()}
          />
        )}
        <Wrong says={set.problem || repeat.problem || (changed && effects.error ? sentenceOf(effects.error) : '')} />
        <p className={css.acts}>
          <Button go type="submit" disabled={busy || Boolean(id && !changed) || (needsReason && !reason.trim())}>
            {id ? 'Keep the change' : 'Set it'}
          </Button>
          {!id && (
            <Button disabled={busy} onClick={() => repeat.run()}>
              Repeat weekly
            </Button>
          )}
          {id && <Button onClick={() => navigate(list)}>{t.cancel}</Button>}
        </p>
        {!id && (
          <p className="tiny muted above-2 below-0">
            Repeated, it is set for each week of the term that is left, breaks left out. Write {'{week}'} in the title
            where the number of the week is to stand.
          </p>
        )}
      </aside>
      <section className={css.rubric} aria-labelledby="steps-of-it">
        <h2 id="steps-of-it">The steps it is marked by</h2>
        <RubricSource
          classId={classId}
          promptId={id}
          criteria={form.values.criteria}
          onTake={(criteria) => form.setFieldValue('criteria', criteria)}
        />
        {form.values.criteria.length > 0 && (
          <Checkbox
            mt="md"
            label="Students see the steps only with their marks"
            {...form.getInputProps('rubricHidden', { type: 'checkbox' })}
          />
        )}
        {form.errors.rubric && <p className={css.wrong}>{form.errors.rubric}</p>}
        <RubricBuilder
          criteria={form.values.criteria}
          onChange={(criteria) => form.setFieldValue('criteria', criteria)}
        />
        {form.values.criteria.length > 0 && <RubricLook criteria={form.values.criteria} />}
      </section>
    </form>
  );
}
