-- Students join by two short words instead of a code; a code that is in use goes on, written as words are.
alter table class alter column join_code rename to word;
alter table class alter column join_until rename to word_until;
alter table class alter column join_left rename to word_left;
alter table class alter column word varchar(60);
update class set word = lower(replace(word, '-', ' ')) where word is not null;
update event set kind = 'joined-by-word' where kind = 'joined-by-code';
