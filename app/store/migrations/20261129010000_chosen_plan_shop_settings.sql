-- The plan of a job that is the one to set; the oldest where nobody chose.
alter table job add column plan_id uuid references plan (id) on delete set null;
-- Where work was done already it is the plan it was last done of.
alter table job no force row level security;
alter table plan no force row level security;
alter table done_step no force row level security;
update job set plan_id = (
    select d.plan_id from done_step d join plan p on p.id = d.plan_id
    where p.job_id = job.id order by d.done_at desc limit 1
);
alter table job force row level security;
alter table plan force row level security;
alter table done_step force row level security;

-- What a shop types once: its labour rate, its currency, the rule books it works to.
alter table shop add column settings jsonb not null default '{}';
alter table shop add column version integer not null default 1;
