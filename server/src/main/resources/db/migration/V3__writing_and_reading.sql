alter table blog_set add column header_sha varchar(64) references medium;
