-- A post that its author gives is an example that the class reads, or a paper on which reviewers warm up.
alter table example_post add used_as varchar(20) default 'EXAMPLE' not null;
alter table warm_up add example_id bigint;
alter table warm_up add foreign key (example_id) references example_post on delete cascade;
create index warm_up_example on warm_up (example_id);
comment on column warm_up.example_id is 'the post that is the paper, by its author''s leave; title and html stand there';
