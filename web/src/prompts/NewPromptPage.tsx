import { Checkbox, NumberInput, Textarea, TextInput } from '@mantine/core';
import { useForm } from '@mantine/form';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { postJson } from '../api/client';
import type { Criterion } from '../api/schema';
import { useWrite } from '../api/write';
import { useClass } from '../session/useClass';
import { Button } from '../ui/Button';
import { Wrong } from '../ui/Wrong';
import { RubricBuilder } from './RubricBuilder';

const nextSunday = () => {
  const d = new Date();
  d.setDate(d.getDate() + ((7 - d.getDay()) % 7 || 7));
  return `${d.getFullYear()}-${String(d.getMonth() + 1).padStart(2, '0')}-${String(d.getDate()).padStart(2, '0')}T20:00`;
};

/** Plain lines as the paragraphs of a text. */
const asHtml = (text: string) =>
  text
    .split(/\n+/)
    .filter((l) => l.trim())
    .map((l) => `<p>${l.replace(/&/g, '&amp;').replace(/</g, '&lt;')}</p>`)
    .join('');

const level = (name: string, points: number, descriptor: string) => ({ name, points, descriptor });

/** A rubric to begin from; every word and number of it can be changed. */
const BEGINNING: Criterion[] = [
  {
    name: 'Observation',
    weight: 2,
    levels: [
      level('none', 0, 'Says nothing of what was seen.'),
      level('some', 2, 'Says what was seen.'),
      level('careful', 4, 'Says what was seen, where and when.'),
      level('exact', 6, 'Measured or counted, more than once.'),
    ],
  },
  {
    name: 'Evidence',
    weight: 2,
    levels: [
      level('none', 0, 'No reason is given.'),
      level('told', 2, 'Says that it is so.'),
      level('shown', 4, 'Says what the claim rests on.'),
      level('tested', 6, 'Tried it another way.'),
    ],
  },
  {
    name: 'Reflection',
    weight: 1,
    levels: [
      level('none', 0, 'No thought of one’s own.'),
      level('likes', 1, 'Says what was good or bad.'),
      level('asks', 2, 'Asks a question.'),
      level('changes', 3, 'Says what will be done differently.'),
    ],
  },
  {
    name: 'Writing for readers',
    weight: 1,
    levels: [
      level('lost', 0, 'A reader is lost.'),
      level('found', 1, 'A reader can follow.'),
      level('led', 2, 'A reader is led on.'),
      level('kept', 3, 'A reader wants more.'),
    ],
  },
];

export function NewPromptPage() {
  const { id, name } = useClass();
  const navigate = useNavigate();
  const [criteria, setCriteria] = useState<Criterion[]>(BEGINNING);
  const form = useForm({
    initialValues: {
      title: '',
      instructions: '',
      questions: '',
      tag: '',
      due: nextSunday(),
      graceHours: 24,
      latePercentPerDay: 5,
      lateMostPercent: 50,
      points: 18,
      words: 100,
      pictures: 0,
      tags: 1,
      category: false,
      links: 0,
      sources: 0,
      comments: 0,
      commentsDue: '',
      commentsWords: 0,
      starter: '',
      answerFirst: false,
    },
  });
  const set = useWrite(
    (v: typeof form.values) => {
      const { words, pictures, tags, category, links, sources, comments, ...rest } = v;
      return postJson(`/api/classes/${id}/prompts`, {
        ...rest,
        tag: v.tag || undefined,
        questions: v.questions.split('\n'),
        commentsDue: comments ? v.commentsDue || undefined : undefined,
        starter: asHtml(v.starter),
        asked: { words, pictures, tags, category: category ? 1 : 0, links, sources, comments },
        rubric: criteria.length ? { criteria } : undefined,
      });
    },
    { form, stale: [[]], onDone: () => navigate(`/classes/${id}/prompts`) },
  );
  const number = (key: 'words' | 'pictures' | 'tags' | 'links' | 'sources', label: string) => (
    <NumberInput label={label} min={0} max={10_000} {...form.getInputProps(key)} />
  );
  return (
    <div className="page wide">
      <title>{`Set a prompt · ${name}`}</title>
      <main>
        <form onSubmit={form.onSubmit((v) => set.run(v))}>
          <h1>Set a prompt</h1>
          <div className="measure-l">
            <TextInput label="Title" name="title" size="md" mt="md" autoFocus {...form.getInputProps('title')} />
            <Textarea label="What to write" mt="md" {...form.getInputProps('instructions')} />
            <Textarea
              label="Guiding questions, one to a line"
              mt="md"
              minRows={2}
              {...form.getInputProps('questions')}
            />
            <Textarea
              label="Beginning of the text, if you give one"
              description="Students begin with it and can change all of it."
              mt="md"
              minRows={2}
              {...form.getInputProps('starter')}
            />
            <div className="fields first-of-four">
              <TextInput label="Due" name="due" type="datetime-local" {...form.getInputProps('due')} />
              <NumberInput label="Grace in hours" min={0} {...form.getInputProps('graceHours')} />
              <NumberInput label="A day late takes %" min={0} max={100} {...form.getInputProps('latePercentPerDay')} />
              <NumberInput label="and at most %" min={0} max={100} {...form.getInputProps('lateMostPercent')} />
            </div>
            <h2 className="small">What a post should have</h2>
            <p className="tiny muted above-1 below-0">Students see it while they write. 0 asks for nothing.</p>
            <div className="fields last-of-six">
              {number('words', 'Words')}
              {number('pictures', 'Pictures')}
              {number('tags', 'Tags')}
              {number('links', 'Links')}
              {number('sources', 'Sources')}
              <TextInput label="Tag for outside posts" {...form.getInputProps('tag')} />
            </div>
          </div>
          <Checkbox mt="md" label="A category" {...form.getInputProps('category', { type: 'checkbox' })} />
          <h2 className="small">Comments for classmates</h2>
          <div className="fields middle-of-three measure">
            <NumberInput label="How many" min={0} max={50} {...form.getInputProps('comments')} />
            <TextInput
              label="Until"
              type="datetime-local"
              name="commentsDue"
              disabled={!form.values.comments}
              {...form.getInputProps('commentsDue')}
            />
            <NumberInput
              label="Words at least"
              min={0}
              max={1000}
              disabled={!form.values.comments}
              {...form.getInputProps('commentsWords')}
            />
          </div>
          <Checkbox
            mt="lg"
            label="Yours before theirs"
            description="A student reads others' answers once the own one is published."
            {...form.getInputProps('answerFirst', { type: 'checkbox' })}
          />
          <h2 className="above-6">How it is marked</h2>
          <NumberInput className="measure-s" label="Points in all" min={0} mt="sm" {...form.getInputProps('points')} />
          <RubricBuilder criteria={criteria} onChange={setCriteria} />
          <Wrong says={set.problem} />
          <Button className="above-5" go type="submit">
            Set the prompt
          </Button>
        </form>
      </main>
    </div>
  );
}
