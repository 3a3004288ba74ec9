-- What came up in one class since a moment, without looking at the rest of the school.
create index event_news on event (class_id, kind, at);
create index comment_news on comment (class_id, published_at);
drop index event_kind;
