-- Whether the feed of a source was read by guess, and what the bytes were that were read last: the same bytes say nothing new.
alter table source add column untidy boolean default false not null;
alter table source add column body_hash varchar(40);
