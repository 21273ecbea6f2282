-- What a ticket is for: the order of its work and what it waits for hang on it.
alter table job add column kind text not null default 'height';

-- What was seen, in words and pictures, at a place of the car. A note is never changed; one struck out loses its picture.
create table note (
    id uuid primary key,
    n bigint generated always as identity,
    shop_id uuid not null references shop (id) on delete cascade,
    job_id uuid not null,
    axle text not null,
    side text not null,
    text text not null check (length(text) <= 600),
    struck boolean not null default false,
    author text not null,
    written_at timestamptz not null default now(),
    unique (shop_id, id),
    foreign key (shop_id, job_id) references job (shop_id, id) on delete cascade
);
create index note_of_job on note (job_id, n);

create table photo (
    note_id uuid primary key,
    shop_id uuid not null references shop (id) on delete cascade,
    jpeg bytea not null check (octet_length(jpeg) between 100 and 700000),
    width integer not null check (width between 1 and 1600),
    height integer not null check (height between 1 and 1600),
    foreign key (shop_id, note_id) references note (shop_id, id) on delete cascade
);

-- Shapes measured in this shop, offered beside the generic ones.
create table shop_shape (
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
    foreach t in array array['note', 'photo', 'shop_shape'] loop
        execute format('alter table %I enable row level security', t);
        execute format('alter table %I force row level security', t);
        execute format(
            'create policy own_shop on %I using (shop_id = nullif(current_setting(''app.shop'', true), '''')::uuid)',
            t);
    end loop;
end $$;
