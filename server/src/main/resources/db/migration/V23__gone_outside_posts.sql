-- When the page of an entry is looked at next, and since when its site says that it is not there.
alter table source_entry add column look_at timestamp(6) with time zone;
alter table source_entry add column missed_at timestamp(6) with time zone;
update source_entry set look_at = dateadd('DAY', 30, first_seen) where post_id is not null;
-- Outside posts that are no longer there, whether staff have said what becomes of each, and what the class says of all.
alter table post add column gone_at timestamp(6) with time zone;
alter table post add column gone_settled boolean default false not null;
alter table class add column gone_posts varchar(8) default 'ASK' not null;
