-- Students join by two short words instead of a code; a code that is in use goes on, written as words are.
alter table class alter column join_code rename to word;
alter table class alter column join_until rename to word_until;
alter table class alter column join_left rename to word_left;
alter table class alter column word varchar(60);
update class set word = lower(replace(word, '-', ' ')) where word is not null;
update event set kind = 'joined-by-word' where kind = 'joined-by-code';

-- How much room pictures and files may take in a class, and since when what they consist of is there: what nothing shows goes after a while.
create table room (
    class_id bigint primary key references class,
    student  int not null,
    in_all   int not null,
    rev      int not null
);
comment on table room is 'in megabytes: for each student, and for the whole class';
alter table medium add column added_at timestamp(6) with time zone default current_timestamp not null;
alter table blog_header add column changed_at timestamp(6) with time zone default current_timestamp not null;

-- How many pages of a PDF are shown in place.
alter table attachment add column pages int default 0 not null;
