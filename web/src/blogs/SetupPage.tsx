import { Checkbox, NumberInput, Radio, Select, Textarea, TextInput } from '@mantine/core';
import { useForm } from '@mantine/form';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { deleteJson, postFile, postJson, putJson } from '../api/client';
import { classOptions, freshOptions, setupOptions } from '../api/queries';
import type { BlogForm, Current, Group, SightlineView } from '../api/schema';
import { useWrite } from '../api/write';
import { useClass } from '../session/useClass';
import { policyChoices, t } from '../texts/en';
import { Button } from '../ui/Button';
import { Sightline } from '../ui/Sightline';
import { Loading, Trouble } from '../ui/Trouble';
import { Word } from '../ui/Word';
import { Wrong } from '../ui/Wrong';
import css from './Blog.module.css';
import { BlogHead } from './BlogHead';
import { LookChoice } from './LookChoice';
import { TitleField } from './TitleField';

type Kind = BlogForm['kind'];

const KINDS: { value: Kind; label: string; says: string }[] = [
  { value: 'SHARED', label: 'Shared', says: 'Everybody in the class writes in one stream.' },
  {
    value: 'ONE_EACH',
    label: 'One each',
    says: 'Every student has an own blog. Own does not mean private: see beside who reads it.',
  },
  { value: 'GROUP', label: 'Group', says: 'A blog for each group; its members write.' },
  {
    value: 'TEACHERS',
    label: "Teacher's",
    says: 'Only you and your co-teachers write; students may comment.',
  },
  {
    value: 'JOURNAL',
    label: 'Journal',
    says: 'For each student, read by nobody but its author and the staff.',
  },
];
const WIDTHS = ['STAFF_AND_ME', 'MY_GROUP', 'MY_CLASS', 'SCHOOL', 'ANYONE'];
const LOOKED_AT = [{ value: 'AS_CLASS', label: 'as the class says' }, ...policyChoices()];
const COMMENTERS = [
  { value: 'NOBODY', label: 'nobody' },
  { value: 'CLASS', label: 'the class' },
  { value: 'GUESTS_TOO', label: 'the class and guests' },
  { value: 'SCHOOL', label: 'other classes too; theirs always wait' },
  { value: 'ANYONE', label: 'anyone; visitors always wait' },
];
const isEach = (kind: string) => kind === 'ONE_EACH' || kind === 'JOURNAL';

/** Making a blog, or changing one: what it is, who reads it before and after, when it is open, how it looks and reads, and its rules. */
export function SetupPage() {
  const { id } = useClass();
  const { ref } = useParams();
  const { data: of } = useQuery(classOptions(id));
  const current = useQuery({ ...setupOptions(ref ?? ''), enabled: !!ref });
  const fresh = useQuery(freshOptions(id));
  const [saved, setSaved] = useState(false);
  if (current.isError)
    return (
      <div className="page wide">
        <Trouble error={current.error} onRetry={() => current.refetch()} />
      </div>
    );
  if (!of || !fresh.data || (ref && !current.data))
    return (
      <div className="page wide">
        <Loading lines={8} />
      </div>
    );
  return (
    <Setup
      key={`${ref}${current.data?.version}`}
      classId={id}
      blogRef={ref}
      current={current.data}
      fresh={fresh.data}
      groups={of.groups}
      saved={saved}
      onSaved={setSaved}
    />
  );
}

/** How much of a time of day the field for it takes. */
const TO_THE_MINUTE = '2026-12-18T16:00'.length;

interface SetupProps {
  classId: number;
  /** Which blog or set is changed; undefined for a new one. */
  blogRef?: string;
  current?: Current;
  /** A new blog of each kind. */
  fresh: BlogForm[];
  groups: Group[];
  /** Whether it was just changed; kept outside, since the form begins anew with what is there now. */
  saved: boolean;
  onSaved: (saved: boolean) => void;
}

function Setup({ classId, blogRef, current, fresh, groups, saved, onSaved }: SetupProps) {
  const navigate = useNavigate();
  const begin = current?.setup ?? fresh.find((f) => f.kind === 'ONE_EACH')!;
  const form = useForm({
    initialValues: {
      ...begin,
      groupId: begin.groupId ? String(begin.groupId) : '',
      onlyGroup: begin.onlyGroup ? String(begin.onlyGroup) : '',
      opensAt: begin.opensAt?.slice(0, TO_THE_MINUTE) ?? '',
      closesAt: begin.closesAt?.slice(0, TO_THE_MINUTE) ?? '',
      commentsCloseAt: begin.commentsCloseAt?.slice(0, TO_THE_MINUTE) ?? '',
      namesKept: !!begin.namesKept,
      namesUntil: begin.namesKept?.until?.slice(0, TO_THE_MINUTE) ?? '',
    },
  });
  const v = form.values;
  const { namesUntil, ...set } = v;
  const wanted: BlogForm = {
    ...set,
    groupId: v.groupId ? Number(v.groupId) : undefined,
    onlyGroup: v.onlyGroup ? Number(v.onlyGroup) : undefined,
    opensAt: v.opensAt || undefined,
    closesAt: v.closesAt || undefined,
    commentsCloseAt: v.commentsCloseAt || undefined,
    namesKept: v.namesKept ? { until: namesUntil || undefined } : undefined,
  };
  const then = useQuery({
    queryKey: [
      'blog-sightline',
      classId,
      wanted.kind,
      wanted.widest,
      wanted.commenters,
      wanted.groupId,
      wanted.onlyGroup,
      wanted.opensAt,
      wanted.closesAt,
    ],
    queryFn: () =>
      postJson<SightlineView>(`/api/classes/${classId}/blogs/sightline`, { ...wanted, title: wanted.title || 'x' }),
    placeholderData: (before) => before,
  });
  const save = useWrite(
    () =>
      blogRef
        ? putJson(`/api/blog-setups/${blogRef}`, { setup: wanted, version: current!.version })
        : postJson(`/api/classes/${classId}/blogs`, wanted),
    {
      form,
      stale: [[]],
      onDone: () => {
        if (blogRef) onSaved(true);
        else navigate(`/classes/${classId}/blogs`);
      },
    },
  );
  const submit = form.onSubmit(() => {
    onSaved(false);
    save.run();
  });
  const setKind = (kind: string) => {
    const next = fresh.find((f) => f.kind === kind)!;
    form.setValues({ kind: next.kind, widest: next.widest, ...(blogRef ? {} : { title: next.title }) });
  };
  const kinds = KINDS.filter((k) => !current || current.kinds.includes(k.value));
  const pattern = isEach(v.kind) || (v.kind === 'GROUP' && !blogRef);
  return (
    <div className="page wide">
      <title>{blogRef ? 'Settings of a blog' : 'New blog'}</title>
      <main>
        <h1>{blogRef ? `Settings of ${begin.title.replace('{name}', 'each student')}` : 'New blog'}</h1>
        <form onSubmit={submit} className={`${css.setup} above-4`}>
          <div>
            <Radio.Group label="What kind" value={v.kind} onChange={setKind}>
              {kinds.map((k) => (
                <Radio key={k.value} value={k.value} label={k.label} description={k.says} mt={8} />
              ))}
            </Radio.Group>
            {v.kind === 'GROUP' && (
              <Select
                label="Whose"
                mt="md"
                data={[
                  ...(blogRef ? [] : [{ value: '', label: 'every group, each its own' }]),
                  ...groups.map((g) => ({ value: String(g.id), label: g.name })),
                ]}
                allowDeselect={false}
                {...form.getInputProps('groupId')}
              />
            )}
            <TitleField
              whose={!pattern ? undefined : isEach(v.kind) ? 'each student' : 'each group'}
              disabled={!!blogRef?.startsWith('b') && isEach(v.kind)}
              value={v.title}
              error={form.errors.title}
              onChange={(title) => form.setFieldValue('title', title)}
            />
            <Textarea
              label="Introduction; readers see it at the head of the blog"
              name="intro"
              mt="md"
              minRows={2}
              {...form.getInputProps('intro')}
            />
            <Textarea
              label="Instructions; students see them while they write"
              name="about"
              mt="md"
              minRows={2}
              {...form.getInputProps('about')}
            />

            <h2>Who reads and comments</h2>
            <div className="fields two">
              <Select
                label="Its posts reach at most"
                data={WIDTHS.map((a) => ({ value: a, label: t.audiences[a] }))}
                allowDeselect={false}
                disabled={v.kind === 'JOURNAL'}
                {...form.getInputProps('widest')}
              />
              <Select
                label="Who comments"
                data={COMMENTERS}
                allowDeselect={false}
                {...form.getInputProps('commenters')}
              />
            </div>
            <Checkbox
              mt="md"
              label="Names are kept from classmates"
              description={
                isEach(v.kind)
                  ? 'Of those who comment. Whose blog it is, the blog itself says.'
                  : 'Of who writes here and of who comments. Teachers read all names.'
              }
              {...form.getInputProps('namesKept', { type: 'checkbox' })}
            />
            {v.namesKept && (
              <div className="fields two">
                <TextInput
                  label="until, if not for good"
                  type="datetime-local"
                  name="namesUntil"
                  {...form.getInputProps('namesUntil')}
                />
              </div>
            )}

            <h2>Approving</h2>
            <div className="fields two">
              <Select
                label="A post is looked at"
                data={LOOKED_AT}
                allowDeselect={false}
                {...form.getInputProps('settings.posts')}
              />
              <Select
                label="A comment is looked at"
                data={LOOKED_AT}
                allowDeselect={false}
                {...form.getInputProps('settings.comments')}
              />
            </div>
            <p className="muted tiny above-2 below-0">
              What is set for one student, under People, outweighs this. What a rule holds always waits.
            </p>

            <h2>When it is open</h2>
            <p className="muted tiny above-1 below-0">
              Not the same as who may read: while it is shut, nobody but its authors and the staff gets in, and students
              cannot write. Times are those of the clock of the class.
            </p>
            <div className="fields three">
              <TextInput label="From" type="datetime-local" name="opensAt" {...form.getInputProps('opensAt')} />
              <TextInput label="until" type="datetime-local" name="closesAt" {...form.getInputProps('closesAt')} />
              <Select
                label="Only for a group"
                data={[
                  { value: '', label: 'no, for all' },
                  ...groups.map((g) => ({ value: String(g.id), label: g.name })),
                ]}
                allowDeselect={false}
                {...form.getInputProps('onlyGroup')}
              />
            </div>

            <h2>How it looks and reads</h2>
            <div className="above-3 below-3">
              <BlogHead
                title={v.title.replace('{name}', isEach(v.kind) ? 'each student' : 'each group')}
                intro={v.intro}
                look={v.settings.look}
                header={current?.header}
              />
            </div>
            <LookChoice
              value={v.settings.look}
              onChange={(look) => form.setFieldValue('settings.look', look as never)}
            />
            {blogRef && (
              <HeaderForm
                blogRef={blogRef}
                has={!!current?.header}
                many={blogRef.startsWith('s')}
                fixed={begin.settings.lookLocked}
              />
            )}
            {isEach(v.kind) && (
              <Checkbox
                mt="md"
                label="The same look for all; students do not choose their own"
                {...form.getInputProps('settings.lookLocked', { type: 'checkbox' })}
              />
            )}
            <div className="fields three">
              <Select
                label="Reading order"
                data={[
                  { value: 'true', label: 'newest first' },
                  { value: 'false', label: 'oldest first' },
                ]}
                allowDeselect={false}
                value={String(v.settings.newestFirst)}
                onChange={(x) => form.setFieldValue('settings.newestFirst', x === 'true')}
              />
              <Select
                label="Headings"
                data={[
                  { value: 'NONE', label: 'none' },
                  { value: 'WEEK', label: 'by week' },
                  { value: 'MONTH', label: 'by month' },
                ]}
                allowDeselect={false}
                {...form.getInputProps('settings.grouping')}
              />
              <NumberInput label="Posts on a page" min={5} max={100} {...form.getInputProps('settings.perPage')} />
            </div>

            <h2>Rules for students</h2>
            <p className="muted tiny above-1 below-0">
              They are said beside the text while a student writes, before they bite.
            </p>
            <div className="fields two">
              <WindowChoice
                label="Change what is published"
                minutes={v.settings.rules.edit.minutes}
                onChange={(m) => form.setFieldValue('settings.rules.edit.minutes', m)}
              />
              <WindowChoice
                label="Delete what is published"
                minutes={v.settings.rules.delete.minutes}
                onChange={(m) => form.setFieldValue('settings.rules.delete.minutes', m)}
              />
            </div>
            <Checkbox
              mt="md"
              label="Students may delete comments of their own"
              {...form.getInputProps('settings.rules.deleteComments', { type: 'checkbox' })}
            />
            <div className="fields four">
              <NumberInput
                label="Fewest words"
                description="0: no rule"
                min={0}
                max={100000}
                {...form.getInputProps('settings.rules.fewestWords')}
              />
              <NumberInput
                label="Most words"
                description="0: no rule"
                min={0}
                max={100000}
                {...form.getInputProps('settings.rules.mostWords')}
              />
              <NumberInput
                label="Most pictures"
                description="in a post"
                min={0}
                max={40}
                {...form.getInputProps('settings.rules.mostPictures')}
              />
              <NumberInput
                label="Megabytes"
                description="of a picture or file"
                min={1}
                max={40}
                {...form.getInputProps('settings.rules.mostMegabytes')}
              />
            </div>
            <div className="fields two">
              <NumberInput
                label="Most posts of a student"
                description="0: no rule"
                min={0}
                max={1000}
                {...form.getInputProps('settings.rules.mostPosts')}
              />
              <Select
                label="in a"
                data={[
                  { value: 'DAY', label: 'day' },
                  { value: 'WEEK', label: 'week' },
                  { value: 'TERM', label: 'term' },
                ]}
                allowDeselect={false}
                {...form.getInputProps('settings.rules.per')}
              />
            </div>

            <div className="fields two">
              <NumberInput
                label="Comments close after so many days"
                description="0: no rule"
                min={0}
                max={1000}
                {...form.getInputProps('settings.rules.comments.afterDays')}
              />
              <TextInput label="or all of them at" type="datetime-local" {...form.getInputProps('commentsCloseAt')} />
            </div>

            <Wrong says={save.problem} />
            {saved && (
              <p className="tell" role="status">
                Changed. It holds from now on
                {isEach(v.kind) && blogRef?.startsWith('s') ? ', for all of these blogs' : ''}.
              </p>
            )}
            <p className="row above-5 below-0">
              <Button go type="submit">
                {blogRef ? 'Change it' : 'Make it'}
              </Button>
              <Link className="btn" to={`/classes/${classId}/blogs`}>
                {blogRef ? 'Back to the blogs' : t.cancel}
              </Link>
            </p>
          </div>
          <aside aria-live="polite">
            {current && (
              <div className={css.now}>
                <h3>Now</h3>
                <Sightline line={current.sightline} withWriters />
              </div>
            )}
            <div className={css.then}>
              <h3>{blogRef ? 'After you change it' : 'Once you make it'}</h3>
              {then.data ? <Sightline line={then.data} withWriters /> : <span className="muted tiny">{t.loading}</span>}
            </div>
            {blogRef?.startsWith('b') && current?.address && (
              <AddressForm blogId={Number(blogRef.slice(1))} classId={classId} address={current.address} />
            )}
          </aside>
        </form>
      </main>
    </div>
  );
}

/** The picture at the head of a blog, or of all blogs of a set; kept at once. */
function HeaderForm({ blogRef, has, many, fixed }: { blogRef: string; has: boolean; many: boolean; fixed: boolean }) {
  const at = many ? `/api/blog-setups/${blogRef}/header` : `/api/blogs/${blogRef.slice(1)}/header`;
  const put = useWrite((file?: File) => (file ? postFile(at, file) : deleteJson(at)), { stale: [[]], here: true });
  return (
    <div className="above-4 below-0">
      <label className="btn mid">
        {has ? 'Another picture at the head' : 'A picture at the head'}
        <input
          type="file"
          accept="image/*"
          hidden
          onChange={(e) => e.target.files?.[0] && put.run(e.target.files[0])}
        />
      </label>
      {has && (
        <Word className="before-4" onClick={() => put.run(undefined)}>
          Without a picture
        </Word>
      )}
      {many && (
        <p className="tiny muted above-2 below-0">
          {fixed
            ? 'For all of these blogs; pictures that students chose go.'
            : 'For all of these blogs; a picture that a student chose stays.'}{' '}
          Kept at once.
        </p>
      )}
      <Wrong says={put.problem} />
    </div>
  );
}

/** For how long something may be done: always, never, or for some minutes. */
function WindowChoice({
  label,
  minutes,
  onChange,
}: {
  label: string;
  minutes: number;
  onChange: (minutes: number) => void;
}) {
  const choice = minutes === -1 ? 'ALWAYS' : minutes === 0 ? 'NEVER' : 'FOR';
  return (
    <div className="row end">
      <Select
        className="grow"
        label={label}
        data={[
          { value: 'ALWAYS', label: 'always' },
          { value: 'FOR', label: 'for some minutes' },
          { value: 'NEVER', label: 'never' },
        ]}
        allowDeselect={false}
        value={choice}
        onChange={(c) => onChange(c === 'ALWAYS' ? -1 : c === 'NEVER' ? 0 : 30)}
      />
      {choice === 'FOR' && (
        <NumberInput
          className="w-number"
          aria-label={`${label}, minutes`}
          value={minutes}
          min={1}
          max={100000}
          onChange={(m) => onChange(Number(m) || 1)}
        />
      )}
    </div>
  );
}

function AddressForm({ blogId, classId, address }: { blogId: number; classId: number; address: string }) {
  const [wanted, setWanted] = useState(address);
  const change = useWrite(() => putJson<{ address: string }>(`/api/blogs/${blogId}/address`, { address: wanted }), {
    here: true,
    stale: [[]],
    onDone: (now) => setWanted(now.address),
  });
  return (
    <div className="above-5">
      <TextInput
        label="Its address"
        description={`…/classes/${classId}/blog/`}
        value={wanted}
        onChange={(e) => setWanted(e.target.value)}
        error={change.problem || undefined}
      />
      <p className="tiny muted above-2 below-2">
        The addresses that it had before go on leading here, and no other blog ever gets them.
      </p>
      {wanted !== address && <Button onClick={() => change.run()}>Change the address</Button>}
    </div>
  );
}
