const clock = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit' });
const day = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short' });
const weekday = new Intl.DateTimeFormat('en-GB', { weekday: 'long' });
const full = new Intl.DateTimeFormat('en-GB', { dateStyle: 'full', timeStyle: 'short' });

const startOfDay = (d: Date) => new Date(d.getFullYear(), d.getMonth(), d.getDate()).getTime();

/** A moment as people say it: "yesterday 16:10", "last Tuesday 19:42", "this Sunday 20:00", "3 Nov". */
export function say(at: string | Date, now = new Date()): string {
  const date = new Date(at);
  const days = Math.round((startOfDay(now) - startOfDay(date)) / 86_400_000);
  const time = clock.format(date);
  if (days === 0) return `today ${time}`;
  if (days === 1) return `yesterday ${time}`;
  if (days === -1) return `tomorrow ${time}`;
  // A day without a date is never ambiguous.
  if (Math.abs(days) < 7) return `${days > 0 ? 'last' : 'this'} ${weekday.format(date)} ${time}`;
  return day.format(date);
}

/** A moment in words, with the full date on hover. */
export function When({ at }: { at: string }) {
  return (
    <time dateTime={at} title={full.format(new Date(at))}>
      {say(at)}
    </time>
  );
}

/** When something is due, or was. */
export function Due({ at }: { at: string }) {
  return (
    <>
      {new Date(at) < new Date() ? 'was due' : 'due'} <When at={at} />
    </>
  );
}
