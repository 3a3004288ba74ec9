-- Students may register outside blogs of their own, as the class says; one that waits for a yes of its staff rests meanwhile.
alter table class add column own_sources varchar(12) default 'STAFF_ONLY' not null;
alter table source add column asked boolean default false not null;
