-- A student's post that staff put up for an answer: classmates are offered it first, until one of them answers.
create table answer_wanted (
    post_id bigint primary key references post on delete cascade,
    at      timestamp(6) with time zone not null
);
comment on table answer_wanted is 'posts that staff put up for an answer; over once a classmate commented after that';

-- How often what a student is allowed was changed: a calendar that was fetched before must see that it is older.
alter table allowance add changes int default 1 not null;
comment on column allowance.changes is 'raised by each change; the row stays when nothing is allowed any more';
