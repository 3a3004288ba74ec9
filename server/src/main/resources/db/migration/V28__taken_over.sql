-- What an assistant marks counts, where a class wants it so, once a teacher has taken it over.
alter table class add column take_over boolean default false not null;
alter table marking add column assistant_id bigint references person;
alter table marking add column taken_over_by bigint references person;
alter table marking add column taken_over_at timestamp(6) with time zone;
