/** Every word on the screen that is used in more than one place. Sentences of a single page stand in its own file beside it. */
export const t = {
  name: 'Vast Porch',
  places: {
    today: 'Today',
    porch: 'Porch',
    write: 'Write',
    approve: 'Approve',
    mark: 'Mark',
    class: 'Class',
    writing: 'My writing',
    feedback: 'Feedback',
  },
  states: {
    DRAFT: 'Draft',
    WAITING: 'Waiting',
    PUBLISHED: 'Published',
    RETURNED: 'Returned',
    SCHEDULED: 'Scheduled',
    HIDDEN: 'Hidden',
    BINNED: 'In the bin',
    NOT_HANDED_IN: 'Not handed in',
    MISSING: 'Nothing came',
    HANDED_IN: 'Handed in',
    BEING_MARKED: 'Being marked',
    MARKED: 'Marked',
    RELEASED: 'Released',
    IN_PART: 'Handed in in part',
    LET_OFF: 'Let off',
    NOT_HERE: 'Not in the class yet',
  } as Record<string, string>,
  roles: {
    LEAD: 'lead teacher',
    CO_TEACHER: 'co-teacher',
    ASSISTANT: 'assistant',
    MODERATOR: 'moderator',
    STUDENT: 'student',
    GUEST: 'guest',
  } as Record<string, string>,
  roleDoes: {
    CO_TEACHER: 'does all that the lead does',
    ASSISTANT: 'reads what staff read, and marks',
    MODERATOR: 'approves posts and comments, and sees nothing else',
    GUEST: 'reads, and comments where a blog lets guests',
    STUDENT: 'writes, reads and comments',
  } as Record<string, string>,
  looks: {
    LINEN: 'Linen',
    TIDE: 'Tide',
    ORCHARD: 'Orchard',
    BRICK: 'Brick',
    SLATE: 'Slate',
    HEATHER: 'Heather',
  } as Record<string, string>,
  doors: { NOT_OPEN_YET: 'not open yet', CLOSED: 'closed' } as Record<string, string>,
  audiences: {
    STAFF_AND_ME: 'Staff and me',
    MY_GROUP: 'My group',
    MY_CLASS: 'My class',
    SCHOOL: 'The school',
    ANYONE: 'Anyone',
  } as Record<string, string>,
  kinds: {
    SHARED: 'shared',
    ONE_EACH: 'one each',
    GROUP: 'group',
    TEACHERS: "teacher's",
    JOURNAL: 'journal',
  } as Record<string, string>,
  health: { LIVELY: 'lively', QUIET: 'quiet', FALTERING: 'faltering', STOPPED: 'stopped' } as Record<string, string>,
  holds: {
    WORD: 'a word on the class list',
    PHONE: 'a phone number',
    EMAIL: 'an e-mail address',
    HANDLE: 'a messaging name',
    STREET: 'a street address',
    FULL_NAME: 'a full name',
    LINK: 'a link',
    PICTURE: 'a picture',
    GUEST: 'written by a guest',
    FIRST_POST: 'a first post',
    REPORT: 'a report',
    WRITING_OVER: 'its author may no longer write there',
  } as Record<string, string>,
  steps: { APPROVE: 'Approved', RETURN: 'Returned', HIDE: 'Hidden', BIN: 'Into the bin' } as Record<string, string>,
  people: (n: number) => (n === 1 ? '1 person' : `${n} people`),
  whoReads: (r: { people: number; strangers: boolean }) =>
    r.strangers ? 'anyone on the internet' : t.people(r.people),
  keeperCares: 'In other classes too: a new pass phrase comes from the school keeper',
  count: (n: number, one: string, many: string) => `${n} ${n === 1 ? one : many}`,
  confirmFirst: (address: string, own: string) =>
    `A mail has gone to ${address}. It counts once you have opened the link in it${own ? `; until then we write to ${own}` : ''}.`,
  loading: 'One moment',
  again: 'Try again',
  cancel: 'Cancel',
  save: 'Save',
};

/** The choices of when somebody looks at a text. */
export const policyChoices = () => Object.entries(policyInWords).map(([value, label]) => ({ value, label }));

/** How texts are looked at, as the end of a sentence that begins with "now". */
export const policyInWords: Record<string, string> = {
  BEFORE: 'before it is published',
  AFTER: 'after it is published',
  NONE: 'not at all',
};

/** "within an hour", "within 2 days": how long a wait usually is. */
export const hoursInWords = (hours: number) =>
  hours <= 1 ? 'an hour' : hours < 48 ? `${hours} hours` : `${Math.ceil(hours / 24)} days`;

/** "the class, its staff and 1 guest": who reads, without names. */
export function readersInWords(s: { students: number; staff: number; guests: number; others: number }): string {
  const parts: string[] = [];
  if (s.students) parts.push(t.count(s.students, 'student', 'students'));
  if (s.staff) parts.push(t.count(s.staff, 'teacher or helper', 'teachers and helpers'));
  if (s.guests) parts.push(t.count(s.guests, 'guest', 'guests'));
  if (s.others) parts.push(`${t.count(s.others, 'other person', 'others')} of the school`);
  return parts.length ? parts.join(', ') : 'nobody yet';
}
