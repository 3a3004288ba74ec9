import { Checkbox, NumberInput, Select, TextInput } from '@mantine/core';
import type { UseFormReturnType } from '@mantine/form';
import { useQuery } from '@tanstack/react-query';
import { blogsOptions, bundlesOptions, categoriesOptions } from '../api/queries';
import type { BlogLine } from '../api/schema';
import { t } from '../texts/en';
import { say } from '../ui/When';
import css from './Compose.module.css';
import { NamedPosts } from './NamedPosts';
import { PeersRule } from './PeersRule';
import { Rule } from './Rule';
import type { PromptForm } from './wanted';

const WORDS = ['No', 'One', 'Two', 'Three', 'Four', 'Five', 'Six', 'Seven', 'Eight', 'Nine', 'Ten', 'Eleven', 'Twelve'];
const inWords = (n: number, one: string, many: string) => `${WORDS[n] ?? n} ${n === 1 ? one : many}`;
const grace = (hours: number) =>
  hours === 0 ? 'no grace' : hours === 24 ? 'a day of grace' : `${t.count(hours, 'hour', 'hours')} of grace`;

const blogName = (b: BlogLine) => b.title.replace('{name}', b.kind === 'GROUP' ? 'each group' : 'each student');

const OWN_VIEW = [
  { value: 'NOT_ASKED', label: 'Not asked' },
  { value: 'BEFORE', label: 'Asked, before they hand in' },
  { value: 'ASKED', label: 'Asked, until the marks show' },
  { value: 'FIRST', label: 'Asked, before the marks show' },
];

interface RulesProps {
  classId: number;
  form: UseFormReturnType<PromptForm>;
}

/** The rules of a prompt beside its text. */
export function Rules({ classId, form }: RulesProps) {
  const v = form.values;
  const { data } = useQuery(bundlesOptions(classId));
  const { data: categories } = useQuery(categoriesOptions(classId));
  const { data: lines } = useQuery(blogsOptions(classId));
  const blogs = lines?.filter((b) => b.kind !== 'TEACHERS');
  const into = blogs?.find((b) => b.ref === v.into);
  const bundle = data?.bundles.find((b) => String(b.id) === v.bundleId);
  const wrong = (...fields: (keyof PromptForm)[]) => fields.some((f) => form.errors[f]);
  const number = (field: keyof PromptForm, label: string, most = 10_000) => (
    <NumberInput label={label} min={0} max={most} {...form.getInputProps(field)} />
  );
  const time = (field: keyof PromptForm, label: string) => (
    <TextInput label={label} type="datetime-local" name={field} {...form.getInputProps(field)} />
  );
  const asks = [
    v.words > 0 && t.count(v.words, 'word', 'words'),
    v.pictures > 0 && t.count(v.pictures, 'picture', 'pictures'),
    v.tags > 0 && t.count(v.tags, 'tag', 'tags'),
    v.links > 0 && t.count(v.links, 'link', 'links'),
    v.sources > 0 && t.count(v.sources, 'source', 'sources'),
    v.category && 'a category',
  ].filter(Boolean);
  const category = categories?.find((c) => String(c.id) === v.byCategory);
  const known = [
    v.byTag && (v.tag ? `the tag ${v.tag}` : 'its title as a tag'),
    category && `the category ${category.name}`,
    v.byTime && 'their time',
  ].filter(Boolean);
  return (
    <>
      <Rule
        label="When students see it"
        wrong={wrong('opens')}
        says={
          <>
            Seen by students <b>{v.opens ? `from ${say(v.opens)}` : 'at once'}</b>
          </>
        }
      >
        {time('opens', 'Seen from')}
      </Rule>
      <Rule
        label="When it is due"
        wrong={wrong('due', 'closes', 'graceHours', 'latePercentPerDay', 'lateMostPercent', 'lateFloor')}
        says={
          <>
            Due <b>{v.due ? say(v.due) : 'never'}</b>, {grace(v.graceHours)}.{' '}
            {v.latePercentPerDay > 0 ? (
              <>
                Each day after that takes <b>{v.latePercentPerDay} %</b>, at most {v.lateMostPercent} %
                {v.lateFloor > 0 && `, and never below ${v.lateFloor}`}.
              </>
            ) : (
              'Being late takes nothing.'
            )}{' '}
            {v.closes && <>Nothing comes in after {say(v.closes)}.</>}
          </>
        }
      >
        {time('due', 'Due')}
        <div className={css.pair}>
          {number('graceHours', 'Grace in hours', 1440)}
          {number('latePercentPerDay', 'A day late takes %', 100)}
          {number('lateMostPercent', 'at most %', 100)}
          {number('lateFloor', 'never below points')}
        </div>
        {time('closes', 'Closes, if it does')}
      </Rule>
      <Rule
        label="What is asked for"
        wrong={wrong('askedPosts', 'words')}
        says={
          v.askedPosts === 0 ? (
            <>
              <b>No post</b>: comments are the whole task.
            </>
          ) : (
            <>
              <b>{inWords(v.askedPosts, 'post', 'posts')}</b> of each {v.byGroups ? <b>group</b> : 'student'}
              {asks.length > 0 && <>, each with {asks.join(', ')}</>}.
            </>
          )
        }
      >
        <NumberInput label="Posts" min={0} max={20} {...form.getInputProps('askedPosts')} />
        <Checkbox
          label="A group hands in one paper"
          description="It counts for all who are in the group when it is due."
          {...form.getInputProps('byGroups', { type: 'checkbox' })}
        />
        <div className={css.pair}>
          {number('words', 'Words')}
          {number('pictures', 'Pictures')}
          {number('tags', 'Tags')}
          {number('links', 'Links')}
          {number('sources', 'Sources')}
        </div>
        <Checkbox label="A category" {...form.getInputProps('category', { type: 'checkbox' })} />
      </Rule>
      {v.askedPosts > 0 && (
        <Rule
          label="What counts as an answer"
          wrong={wrong('tag', 'byCategory')}
          says={
            known.length > 0 ? (
              <>
                What is written for it, and posts known by <b>{known.join(' or ')}</b>.
              </>
            ) : (
              <>
                Only what is <b>written for it</b>.
              </>
            )
          }
        >
          <TextInput
            label="A tag that stands for it"
            description="Posts that come in from outside blogs are always known by it, or by the title as a tag."
            {...form.getInputProps('tag')}
          />
          <Checkbox
            label="Students’ posts here are known by that too"
            {...form.getInputProps('byTag', { type: 'checkbox' })}
          />
          {categories && categories.length > 0 && (
            <Select
              label="Students’ posts of this category answer it"
              placeholder="of none"
              clearable
              data={categories.map((c) => ({ value: String(c.id), label: c.name }))}
              value={v.byCategory || null}
              onChange={(value) => form.setFieldValue('byCategory', value ?? '')}
            />
          )}
          <Checkbox
            label="Students’ posts from its time answer it"
            description="While it is the only prompt of this kind that is open."
            {...form.getInputProps('byTime', { type: 'checkbox' })}
          />
        </Rule>
      )}
      <Rule
        label="Comments for classmates"
        wrong={wrong('comments', 'commentsDue', 'commentsWords', 'commentOn')}
        says={
          <>
            <b>{inWords(v.comments, 'comment', 'comments')}</b>{' '}
            {v.comments > 0 && v.commentOn.length > 0
              ? `under ${t.count(v.commentOn.length, 'named post', 'named posts')}`
              : 'for classmates'}
            {v.comments > 0 && (
              <>
                {v.commentsDue ? ` until ${say(v.commentsDue)}` : ' by the day it is due'}
                {v.commentsWords > 0 && `, ${t.count(v.commentsWords, 'word', 'words')} each`}
                {v.commentsFirst && v.askedPosts > 0 && '; ready to mark only with them'}
              </>
            )}
            .
          </>
        }
      >
        <div className={css.pair}>
          {number('comments', 'How many', 50)}
          {number('commentsWords', 'Words at least', 1000)}
        </div>
        {time('commentsDue', 'Until')}
        {v.comments > 0 && (
          <NamedPosts named={v.commentOn} onName={(posts) => form.setFieldValue('commentOn', posts)} />
        )}
        {v.comments > 0 && v.askedPosts > 0 && (
          <Checkbox
            label="Ready to mark only with them"
            {...form.getInputProps('commentsFirst', { type: 'checkbox' })}
          />
        )}
      </Rule>
      {v.askedPosts > 0 && blogs && blogs.length > 0 && (
        <Rule
          label="Where answers go"
          wrong={wrong('into')}
          says={
            into ? (
              <>
                Written in <b>{blogName(into)}</b>.
              </>
            ) : (
              <>
                Written in <b>any blog</b> of a student.
              </>
            )
          }
        >
          <Select
            label="Answers go into"
            data={[
              { value: '', label: 'any blog in which a student writes' },
              ...blogs.map((b) => ({ value: b.ref, label: blogName(b) })),
            ]}
            allowDeselect={false}
            {...form.getInputProps('into')}
          />
        </Rule>
      )}
      <Rule
        label="Who reads the answers"
        wrong={wrong('namesUntil')}
        says={
          <>
            {v.ownFirst ? (
              <>
                Everybody reads the answers <b>once the own one is published</b>
              </>
            ) : (
              <>
                Everybody who may read them reads the answers <b>at once</b>
              </>
            )}
            {v.namesKept && (
              <>
                , <b>without names</b>
                {v.namesUntil && ` until ${say(v.namesUntil)}`}
              </>
            )}
            .
          </>
        }
      >
        <Checkbox
          label="Yours before theirs"
          description="A student reads others' answers once the own one is published."
          {...form.getInputProps('ownFirst', { type: 'checkbox' })}
        />
        <Checkbox
          label="Names are kept from classmates"
          description="Of who answers, and of who comments on the answers. Teachers read all names."
          {...form.getInputProps('namesKept', { type: 'checkbox' })}
        />
        {v.namesKept && time('namesUntil', 'Until, if not for good')}
        {v.namesKept && v.askedPosts > 0 && into?.kind !== 'SHARED' && (
          <p className="tiny muted above-2 below-0">
            A blog of one’s own says whose it is. Let the answers go into a common blog to keep their authors’ names.
          </p>
        )}
      </Rule>
      <Rule
        label="How it is marked"
        wrong={wrong('points', 'bundleId')}
        says={
          <>
            {v.criteria.length > 0 ? (
              <>
                Marked out of <b>{v.points}</b> by{' '}
                <b>{inWords(v.criteria.length, 'criterion', 'criteria').toLowerCase()}</b>
              </>
            ) : (
              <b>Not marked</b>
            )}
            {bundle ? (
              <>
                ; one of <b>{bundle.name}</b>
                {bundle.best > 0 && `, best ${bundle.best}`}
              </>
            ) : (
              data && data.bundles.length > 0 && '; in no bundle'
            )}
            .
          </>
        }
      >
        {number('points', 'Points in all')}
        {data && data.bundles.length > 0 && (
          <Select
            label="Counts together with"
            placeholder="none"
            clearable
            data={data.bundles.map((b) => ({ value: String(b.id), label: b.name }))}
            value={v.bundleId || null}
            onChange={(value) => form.setFieldValue('bundleId', value ?? '')}
          />
        )}
        <p className="tiny muted above-2 below-0">The criteria stand below; without any it is not marked.</p>
      </Rule>
      {v.criteria.length > 0 && (
        <Rule
          label="How students see their own"
          wrong={wrong('self', 'selfShare')}
          says={
            v.self === 'NOT_ASKED' ? (
              <>
                Students are <b>not asked</b> how they see their own.
              </>
            ) : (
              <>
                Students say by the same steps <b>how they see their own</b>
                {v.self === 'FIRST' && ', before the marks show'}
                {v.self === 'BEFORE' && ', before they hand in'}
                {v.selfShare > 0 ? `; that is ${v.selfShare} % of the score` : '; it does not count'}.
              </>
            )
          }
        >
          <Select label="Their own view" data={OWN_VIEW} allowDeselect={false} {...form.getInputProps('self')} />
          {v.self !== 'NOT_ASKED' && number('selfShare', 'Its share of the score in %', 100)}
          {v.self !== 'NOT_ASKED' && v.rubricHidden && (
            <p className="tiny muted above-2 below-0">They need to see the rubric for that.</p>
          )}
        </Rule>
      )}
      {v.criteria.length > 0 && v.askedPosts > 0 && <PeersRule form={form} />}
    </>
  );
}
