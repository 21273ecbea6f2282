-- What happened on a job stays in its order when a clock is set back, or when two servers' clocks differ: the database
-- stamps, and nothing of a job before what the job has already.
create index event_in_order on event (job_id, id);
drop index event_of_job;

create function job_now(of_job uuid) returns timestamptz language sql volatile set search_path = public as $$
  select case when last.at > clock_timestamp() then last.at + interval '1 second' else clock_timestamp() end
  from (select (select at from event where job_id = of_job order by id desc limit 1) as at) last
$$;

-- An event that brings its own time (of a job's file) keeps it.
create function stamp_event() returns trigger language plpgsql set search_path = public as $$
begin
  if new.job_id is not null and new.at = now() then
    new.at := job_now(new.job_id);
  end if;
  return new;
end
$$;
create trigger stamp before insert on event for each row execute function stamp_event();

-- Whether a line of a tread log was put right by a later one.
create index tread_line_replaces on tread_line (replaces) where replaces is not null;
