-- A source can rest for a while, or be taken out for good; what came from it stays.
alter table source add column paused boolean default false not null;
alter table source add column removed_at timestamp(6) with time zone;
