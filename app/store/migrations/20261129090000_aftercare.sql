-- What happens after the setting: every time the car comes back, when it is looked at next, and that the job is closed.
alter table job add column aftercare jsonb not null default '{}';
-- Cars that are due, by the day they are.
create index job_due on job (shop_id, (aftercare #>> '{next_look,on}')) where aftercare #>> '{next_look,on}' is not null;
