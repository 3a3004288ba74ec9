-- Whether a gathered post is only a beginning, or was completed from its own page.
alter table post add column excerpt varchar(10);
