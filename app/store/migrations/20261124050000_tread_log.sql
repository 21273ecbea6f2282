-- Tyres of a vehicle with their log. Lines are never overwritten: a correction names the line it replaces, and a
-- line struck out is replaced by one that says so.
create table tyre (
    id uuid primary key,
    shop_id uuid not null references shop (id) on delete cascade,
    vehicle_id uuid not null,
    mark text not null check (length(mark) between 1 and 40),
    new_depth_mm double precision check (new_depth_mm between 2 and 25),
    created_at timestamptz not null default clock_timestamp(),
    unique (shop_id, id),
    unique (vehicle_id, mark),
    foreign key (shop_id, vehicle_id) references vehicle (shop_id, id) on delete cascade
);

create table tread_line (
    id uuid primary key,
    n bigint generated always as identity,
    shop_id uuid not null references shop (id) on delete cascade,
    tyre_id uuid not null,
    odometer_km double precision not null check (odometer_km between 0 and 3000000),
    place text,
    flipped boolean not null default false,
    inner_mm double precision,
    centre_mm double precision,
    outer_mm double precision,
    day text not null default '',
    note text not null default '',
    struck boolean not null default false,
    replaces uuid references tread_line (id),
    author text not null,
    written_at timestamptz not null default now(),
    foreign key (shop_id, tyre_id) references tyre (shop_id, id) on delete cascade
);
create index tread_line_of_tyre on tread_line (tyre_id, n);

do $$
declare t text;
begin
    foreach t in array array['tyre', 'tread_line'] loop
        execute format('alter table %I enable row level security', t);
        execute format('alter table %I force row level security', t);
        execute format(
            'create policy own_shop on %I using (shop_id = nullif(current_setting(''app.shop'', true), '''')::uuid)',
            t);
    end loop;
end $$;
