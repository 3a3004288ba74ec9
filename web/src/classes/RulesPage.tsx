import { Checkbox, NumberInput, Select, Textarea } from '@mantine/core';
import { useForm } from '@mantine/form';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { putJson } from '../api/client';
import { classOptions } from '../api/queries';
import type { ClassView } from '../api/schema';
import { useWrite } from '../api/write';
import { FrontPageForm } from '../frontpage/FrontPageForm';
import { TryHolds } from '../moderation/TryHolds';
import { useClass } from '../session/useClass';
import { MailByDefault } from '../subscriptions/MailByDefault';
import { policyChoices, t } from '../texts/en';
import { Button } from '../ui/Button';
import { Loading } from '../ui/Trouble';
import { Categories } from '../writing/Categories';
import { RoomForm } from './RoomForm';

const POLICIES = policyChoices();
const TOOLS = {
  BOLD: 'Bold',
  ITALIC: 'Italic',
  UNDERLINE: 'Underline',
  STRIKE: 'Strike through',
  HEADING: 'Headings',
  LIST: 'Lists',
  QUOTE: 'Quotes',
  LINK: 'Links',
  ALIGN: 'Alignment',
  PICTURE: 'Pictures',
  SOUND: 'Sound',
  VIDEO: 'Video',
  DOCUMENT: 'Documents',
};
const CEILINGS = ['STAFF_AND_ME', 'MY_GROUP', 'MY_CLASS', 'SCHOOL', 'ANYONE'];

/** What came of the last change; kept outside the form, which begins anew with what is there now. */
type Said = { wrong: boolean; text: string } | null;

export function RulesPage() {
  const { id } = useClass();
  const { data } = useQuery(classOptions(id));
  const [said, setSaid] = useState<Said>(null);
  return data ? (
    <RulesForm key={data.version} of={data} said={said} onSaid={setSaid} />
  ) : (
    <div className="page plain">
      <Loading />
    </div>
  );
}

/** The rules of the class; each can be changed at any time without losing anything. */
function RulesForm({ of, said, onSaid }: { of: ClassView; said: Said; onSaid: (said: Said) => void }) {
  const form = useForm({ initialValues: { ...of.rules, heldWords: of.rules.heldWords.join('\n') } });
  const change = useWrite(
    (v: typeof form.values) =>
      putJson(`/api/classes/${of.id}/rules`, {
        version: of.version,
        rules: { ...v, heldWords: v.heldWords.split('\n') },
      }),
    {
      stale: [['class', of.id]],
      onDone: () => onSaid({ wrong: false, text: 'The rules are changed. They hold from now on.' }),
      onWrong: (text) => onSaid({ wrong: true, text }),
    },
  );
  return (
    <div className="page plain">
      <title>{`Rules · ${of.name}`}</title>
      <main className="measure">
        <h1>Rules</h1>
        <p className="muted above-2 below-4">
          They hold for the whole class and can be changed at any time. What is published stays published.
        </p>
        <form onSubmit={form.onSubmit((v) => change.run(v))}>
          <Select
            label="A post is looked at"
            data={POLICIES}
            allowDeselect={false}
            {...form.getInputProps('postPolicy')}
          />
          <Select
            label="A comment is looked at"
            mt="md"
            data={POLICIES}
            allowDeselect={false}
            {...form.getInputProps('commentPolicy')}
          />
          <NumberInput
            label="Earned trust: after so many approvals in a row, a student's posts go straight out"
            description="0 means that every post is looked at."
            mt="md"
            min={0}
            max={100}
            {...form.getInputProps('trustAfter')}
          />
          <Select
            label="Posts of this class reach at most"
            description="Nobody's post goes further than this, whatever it was set to."
            mt="md"
            data={CEILINGS.map((a) => ({ value: a, label: t.audiences[a] }))}
            allowDeselect={false}
            {...form.getInputProps('ceiling')}
          />
          <Checkbox
            mt="lg"
            label="Strangers may come in and read what is for anyone"
            {...form.getInputProps('open', { type: 'checkbox' })}
          />
          <Checkbox
            mt="sm"
            label="Hold posts and comments with links"
            {...form.getInputProps('holdLinks', { type: 'checkbox' })}
          />
          <Checkbox
            mt="sm"
            label="Hold posts with pictures, sounds, videos or files that are new"
            {...form.getInputProps('holdPictures', { type: 'checkbox' })}
          />
          <NumberInput
            label="Hold the first posts of each student"
            description="How many, even where nobody looks otherwise. 0 means none."
            mt="md"
            min={0}
            max={20}
            {...form.getInputProps('firstPosts')}
          />
          <Checkbox
            mt="md"
            label="What a reader reports comes down until somebody has looked"
            {...form.getInputProps('reportsHide', { type: 'checkbox' })}
          />
          <Checkbox
            mt="md"
            label="What an assistant marks counts once a teacher has taken it over"
            {...form.getInputProps('takeOver', { type: 'checkbox' })}
          />
          <NumberInput
            mt="md"
            label="Two readings of a paper come back to both when they lie further apart than"
            description="In steps, on any one criterion"
            min={0}
            max={7}
            {...form.getInputProps('apart')}
          />
          <Textarea
            label="Words that are held, one to a line"
            description="Spelling tricks such as 1 for l are seen through. Only staff see this list."
            mt="md"
            minRows={3}
            {...form.getInputProps('heldWords')}
          />
          <Checkbox.Group
            label="What students find in the editor"
            description="What is switched off stays out of what they save, also when it is pasted."
            mt="md"
            {...form.getInputProps('tools')}
          >
            <div className="fields three above-2">
              {Object.entries(TOOLS).map(([value, label]) => (
                <Checkbox key={value} value={value} label={label} />
              ))}
            </div>
          </Checkbox.Group>
          {said && (
            <p className={`tell ${said.wrong ? 'wrong' : ''}`} role={said.wrong ? 'alert' : 'status'}>
              {said.text}
            </p>
          )}
          <Button className="above-4" go type="submit">
            Change the rules
          </Button>
        </form>
        <TryHolds classId={of.id} version={of.version} />
        <Categories classId={of.id} />
        <MailByDefault classId={of.id} />
        <FrontPageForm classId={of.id} />
        <RoomForm classId={of.id} />
      </main>
    </div>
  );
}
