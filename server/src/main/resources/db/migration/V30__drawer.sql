-- The drawer of a class: pictures and files that stand in no post.
alter table picture alter column post_id drop not null;
alter table picture add column name varchar(200) default '' not null;
alter table picture add column offered boolean default false not null;
alter table attachment alter column post_id drop not null;
alter table attachment add column offered boolean default false not null;
create index picture_class on picture (class_id);

-- What a prompt says is a text with pictures and links from now on.
update prompt
   set instructions = '<p>' || replace(replace(replace(replace(replace(instructions, char(13), ''), '&', '&amp;'),
                              '<', '&lt;'), '>', '&gt;'), char(10), '</p><p>') || '</p>'
 where instructions <> '';
