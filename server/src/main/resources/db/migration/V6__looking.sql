-- What changed in a comment is shown to whoever looks at it again; staff can mend one, with a trace.

alter table comment add column before_html varchar(100000);
alter table comment add column edited_by bigint;
comment on column comment.before_html is 'what it said before its author changed it, after it had been up or had come back';
