-- When an outside post was written by its feed's word, when it was seen here first, and which of the two a person decided to count.
alter table post add column outside_says timestamp(6) with time zone;
alter table post add column outside_seen timestamp(6) with time zone;
alter table post add column outside_counts varchar(10);
update post p
   set outside_says = handed_in_at,
       outside_seen = greatest(handed_in_at, (select min(e.first_seen) from source_entry e where e.post_id = p.id))
 where source_id is not null
   and handed_in_at is not null
   and exists (select 1 from source_entry e where e.post_id = p.id);
