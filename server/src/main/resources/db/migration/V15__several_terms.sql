-- A class has terms, one after the other; breaks are the class's and lie in whichever term they take days of.
create table class_term (
    class_id  bigint not null references class,
    first_day date not null,
    last_day  date not null,
    name      varchar(60) not null,
    primary key (class_id, first_day)
);
insert into class_term (class_id, first_day, last_day, name) select id, first_day, last_day, '' from class;
alter table class drop column first_day;
alter table class drop column last_day;
