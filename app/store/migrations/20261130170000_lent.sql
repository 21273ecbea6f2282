-- What cars of another shop taught, as this shop took it in from a file. A later file of that shop, and putting it out, end its time
-- and remove nothing: a car that is worked on goes on with what was known when work began.
create table lent (
    id uuid primary key,
    shop_id uuid not null references shop (id) on delete cascade,
    origin text not null check (char_length(origin) between 1 and 80),
    name text not null check (char_length(name) between 1 and 80),
    taken_at timestamptz not null default clock_timestamp(),
    out_at timestamptz,
    author text not null,
    cars jsonb not null check (jsonb_typeof(cars) = 'array'),
    heights jsonb not null check (jsonb_typeof(heights) = 'array')
);
create unique index lent_counts on lent (shop_id, origin) where out_at is null;
create index lent_of_shop on lent (shop_id, taken_at);
alter table lent enable row level security;
create policy looks on lent for select using (shop_id = (select here()) and (select may('look')));
create policy makes on lent for insert with check (shop_id = (select here()) and (select may('library')));
create policy changes on lent for update using (shop_id = (select here()) and (select may('library')));
create trigger audit after insert or update or delete on lent for each row execute function keep_audit();
do $$ begin
    if exists (select 1 from pg_roles where rolname = 'bold_stance') then
        grant select, insert on lent to bold_stance;
        grant update (out_at) on lent to bold_stance;
    end if;
end $$;
