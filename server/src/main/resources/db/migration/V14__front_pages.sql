-- What anyone may read has a front page, at an address that can be said; earlier addresses lead there.
alter table class add column address varchar(60);
update class set address = 'class-' || id;
alter table class alter column address set not null;
create table class_address (
    address  varchar(60) primary key,
    class_id bigint not null references class
);
insert into class_address (address, class_id) select address, id from class;
create index class_address_class on class_address (class_id);

-- Search engines find a front page only if the keeper and the class say so; a person's page is there only if the class says so.
alter table class add column findable boolean default false not null;
alter table class add column people_pages boolean default false not null;
alter table school alter column address drop not null;
alter table school add column findable boolean default false not null;
