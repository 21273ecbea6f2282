-- The shop's own parts and aims: a row stands for the shipped one of the same id, or is new.

create table shop_part (
    shop_id uuid not null references shop (id) on delete cascade,
    id text not null check (length(id) between 1 and 60),
    version integer not null default 1,
    document jsonb not null,
    retired boolean not null default false,
    updated_at timestamptz not null default now(),
    primary key (shop_id, id)
);

create table shop_aim (
    shop_id uuid not null references shop (id) on delete cascade,
    id text not null check (length(id) between 1 and 60),
    version integer not null default 1,
    document jsonb not null,
    updated_at timestamptz not null default now(),
    primary key (shop_id, id)
);

do $$
declare t text;
begin
    foreach t in array array['shop_part', 'shop_aim'] loop
        execute format('alter table %I enable row level security', t);
        execute format('alter table %I force row level security', t);
        execute format(
            'create policy own_shop on %I using (shop_id = nullif(current_setting(''app.shop'', true), '''')::uuid)',
            t);
    end loop;
end $$;

-- Parts that now come in sizes: plans keep the size they were made with. The owner is bound by the policies too.
alter table plan no force row level security;
update plan set document = jsonb_set(document, '{fitted}', (
    select coalesce(jsonb_agg(case f
        when 'offset-upper-arm' then 'offset-upper-arm@7'
        when 'upper-joint-spacer' then 'upper-joint-spacer@14'
        when 'wide-throw-cams' then 'wide-throw-cams@4.8'
        when 'tie-rod-end-spacer' then 'tie-rod-end-spacer@12'
        else f end order by n), '[]')
    from jsonb_array_elements_text(document -> 'fitted') with ordinality as e (f, n)))
where jsonb_typeof(document -> 'fitted') = 'array';
alter table plan force row level security;
