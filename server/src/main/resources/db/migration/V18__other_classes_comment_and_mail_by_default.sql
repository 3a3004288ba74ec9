-- Who commented in a class without ever having had a place there: its readers learn from which class they come.
create table other_commenter (
    class_id  bigint not null references class,
    person_id bigint not null references person,
    primary key (class_id, person_id)
);
insert into other_commenter (class_id, person_id)
select distinct c.class_id, c.author_id
  from comment c
 where c.author_id is not null
   and not exists (select 1 from membership m where m.class_id = c.class_id and m.person_id = c.author_id);

-- Whether a class writes to its members about what is new before they ask for it, and which subscriptions came of that.
alter table class add column mail_by_default varchar(8) default 'OFF' not null;
alter table subscription add column by_class boolean default false not null;
-- Who stopped all mails is not written to by a class that does so by itself either.
alter table person_mail add column stopped boolean default false not null;
