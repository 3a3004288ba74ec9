import { useQuery } from '@tanstack/react-query';
import { putJson } from '../api/client';
import { classMailOptions } from '../api/queries';
import { RuleChoice } from '../ui/RuleChoice';

const RULES = [
  { value: 'OFF', label: 'No mail, unless somebody subscribes' },
  { value: 'OFFERED', label: 'Everybody with an address is asked once whether they want it' },
  { value: 'ON', label: 'Everybody with an address gets it once a day, until they switch it off' },
];

/** Whether the class writes to its members about what is new before they ask for it. */
export function MailByDefault({ classId }: { classId: number }) {
  const mail = classMailOptions(classId);
  const { data } = useQuery(mail);
  if (!data) return null;
  return (
    <RuleChoice
      title="Mail about new writing"
      label="Mail about new writing"
      choices={RULES}
      rule={data.rule}
      queryKey={mail.queryKey}
      send={(rule, seen) => putJson(`/api/classes/${classId}/mail`, { rule, seen })}
    >
      A mail holds what its reader may read at that moment and nothing else. Whoever stops mail stays without it.
    </RuleChoice>
  );
}
