-- What changed in a comment is shown to whoever looks at it again; staff can mend one, with a trace.

alter table comment add column before_html varchar(100000);
alter table comment add column edited_by bigint;
comment on column comment.before_html is 'what it said before its author changed it, after it had been up or had come back';

create table email_wish (
    person_id  bigint primary key references person,
    email      varchar(254) not null,
    token_hash varchar(64) not null unique,
    expires_at timestamp(6) with time zone not null
);
comment on table email_wish is 'addresses that somebody who reads mail there has still to confirm';
