-- Visits with their prepare lists; readings of every wheel, axle and method, with what was corrected and why.

create table visit (
    shop_id uuid not null references shop (id) on delete cascade,
    job_id uuid not null,
    kind text not null,
    version integer not null default 1,
    answers jsonb not null default '{}',
    author text not null,
    opened_at timestamptz not null default now(),
    primary key (job_id, kind),
    foreign key (shop_id, job_id) references job (shop_id, id) on delete cascade
);

alter table visit enable row level security;
alter table visit force row level security;
create policy own_shop on visit using (shop_id = nullif(current_setting('app.shop', true), '')::uuid);

alter table reading
    add column axle text not null default 'front',
    add column corrections jsonb not null default '[]',
    add column also jsonb not null default '[]',
    add column doubt jsonb not null default '[]',
    add column notes jsonb not null default '[]',
    add column jack text not null default 'rolled',
    add column jacked_height text not null default '',
    add column height_mm double precision;

-- The owner is bound by the policies too, so they are lifted while old rows get the method's own name.
-- What was typed stays as it was typed.
alter table reading no force row level security;
update reading set method = case
    when method = 'sweep' then 'caster-sweep'
    when quantity = 'height' then 'height-hub'
    when quantity = 'camber' then 'camber-gauge'
    when quantity = 'caster' then 'caster-joint-line'
    else 'toe-convert' end;
alter table reading force row level security;
