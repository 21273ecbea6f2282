-- The first slice: a shop's vehicles, jobs, readings, plans, what was done, and what happened.
-- Every row belongs to a shop; row-level security enforces it under the application's own role,
-- also for the owner of the tables.

create table shop (
    id uuid primary key,
    name text not null unique check (length(name) between 1 and 120),
    created_at timestamptz not null default now()
);

create table vehicle (
    id uuid primary key,
    shop_id uuid not null references shop (id) on delete cascade,
    version integer not null default 1,
    name text not null check (length(name) between 1 and 120),
    silhouette text not null,
    wheelbase_mm double precision not null,
    track_front_mm double precision not null,
    track_rear_mm double precision not null,
    tyre_size text not null,
    tyre_class text not null,
    tread_depth_mm double precision not null,
    drive text not null,
    use_mix text not null,
    front_load_n double precision not null,
    pressure_kpa double precision not null,
    placard_kpa double precision not null,
    design_height_mm double precision not null,
    rear_height_mm double precision not null,
    knowledge text not null,
    geometry jsonb not null,
    adjusters jsonb not null,
    created_at timestamptz not null default now(),
    unique (shop_id, id)
);

create table job (
    id uuid primary key,
    shop_id uuid not null references shop (id) on delete cascade,
    vehicle_id uuid not null,
    version integer not null default 1,
    ticket integer not null,
    complaint text not null check (length(complaint) <= 500),
    bay integer check (bay between 1 and 99),
    stage text not null,
    created_at timestamptz not null default now(),
    unique (shop_id, id),
    unique (shop_id, ticket),
    foreign key (shop_id, vehicle_id) references vehicle (shop_id, id) on delete cascade
);

-- Readings are never changed: a correction is a new row that names the one it stands for.
create table reading (
    id uuid primary key,
    shop_id uuid not null references shop (id) on delete cascade,
    job_id uuid not null,
    visit text not null,
    quantity text not null,
    side text not null,
    method text not null,
    raw jsonb not null,
    unit text not null,
    value double precision not null,
    sigma double precision not null check (sigma >= 0),
    author text not null,
    replaces uuid references reading (id),
    taken_at timestamptz not null default now(),
    foreign key (shop_id, job_id) references job (shop_id, id) on delete cascade
);
create index reading_of_job on reading (job_id, taken_at);

create table plan (
    id uuid primary key,
    shop_id uuid not null references shop (id) on delete cascade,
    job_id uuid not null,
    version integer not null default 1,
    name text not null check (length(name) between 1 and 120),
    document jsonb not null,
    created_at timestamptz not null default now(),
    updated_at timestamptz not null default now(),
    unique (shop_id, id),
    foreign key (shop_id, job_id) references job (shop_id, id) on delete cascade
);
create index plan_of_job on plan (job_id, created_at);

-- What was done of a plan's sheet: a step, or a tick at a gate.
create table done_step (
    shop_id uuid not null references shop (id) on delete cascade,
    plan_id uuid not null,
    step text not null check (length(step) between 1 and 80),
    done_at timestamptz not null default now(),
    author text not null,
    primary key (plan_id, step),
    foreign key (shop_id, plan_id) references plan (shop_id, id) on delete cascade
);

create table event (
    id bigint generated always as identity primary key,
    shop_id uuid not null references shop (id) on delete cascade,
    job_id uuid,
    at timestamptz not null default now(),
    who text not null,
    what text not null,
    detail jsonb not null default '{}'
);
create index event_of_job on event (job_id, at);

do $$
declare t text;
begin
    foreach t in array array['vehicle', 'job', 'reading', 'plan', 'done_step', 'event'] loop
        execute format('alter table %I enable row level security', t);
        execute format('alter table %I force row level security', t);
        execute format(
            'create policy own_shop on %I using (shop_id = nullif(current_setting(''app.shop'', true), '''')::uuid)',
            t);
    end loop;
end $$;
