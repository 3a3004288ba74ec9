-- Until when names are kept from classmates around what stands in a blog or answers a prompt; null if they are not.
alter table blog add names_until timestamp(6) with time zone;
alter table blog_set add names_until timestamp(6) with time zone;
alter table prompt add names_until timestamp(6) with time zone;

-- The blog, or the set of blogs, in which answers to a prompt are written; null for any.
alter table prompt add into_blog bigint references blog;
alter table prompt add into_set bigint references blog_set;
