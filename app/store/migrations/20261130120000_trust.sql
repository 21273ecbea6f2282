-- Who works here, who may do what, and two roles: the one that owns the tables migrates, backs up and restores; the one
-- that serves is bound by row-level security, changes no event and no kept reading, and names no shop it has no session
-- for. A shop without an owner is open: whoever reaches the server on this machine works in it, as before.

do $$ begin
    if not exists (select 1 from pg_roles where rolname = 'bold_stance') then
        raise exception 'the role bold_stance, which serves, is not there'
            using hint = 'create role bold_stance login password ''...''; see docs/OPERATIONS.md';
    end if;
end $$;

-- Roles and acts: the same table as bold_stance_people::Role::may, held to it by a test.
create table role_act (
    role text not null,
    act text not null,
    primary key (role, act)
);
insert into role_act (role, act)
select 'owner', a from unnest(array['look', 'ticket', 'measure', 'plan', 'turn', 'gate', 'library', 'enrol', 'settings',
    'people', 'records']) a
union all
select 'specialist', a from unnest(array['look', 'ticket', 'measure', 'plan', 'turn', 'gate', 'library', 'enrol']) a
union all
select 'apprentice', a from unnest(array['look', 'ticket', 'measure', 'turn']) a
union all
select 'front_desk', a from unnest(array['look', 'ticket']) a;

alter table shop
    -- Set once its owner has a PIN: nobody works in it without a session from then on.
    add column locked boolean not null default false,
    add column bays integer not null default 3 check (bays between 1 and 99),
    add column trust jsonb not null default '{}',
    add column slip_salt bytea,
    add column slip_verifier bytea;

-- Somebody who signs in from anywhere, by name and passphrase; a member of one shop or of several.
create table account (
    id uuid primary key,
    login text not null check (length(login) between 1 and 60),
    salt bytea not null,
    -- SHA-256 of what Argon2id makes of the passphrase: what is kept does not sign in.
    verifier bytea not null,
    totp bytea,
    totp_step bigint not null default 0,
    wrong integer not null default 0,
    wait_until timestamptz,
    created_at timestamptz not null default now()
);
create unique index account_login on account (lower(login));

create table member (
    id uuid primary key,
    shop_id uuid not null references shop (id) on delete cascade,
    account_id uuid references account (id) on delete set null,
    name text not null check (length(name) between 1 and 60),
    role text not null check (role in ('owner', 'specialist', 'apprentice', 'front_desk')),
    -- Which way their mark is turned.
    mark integer not null default 0 check (mark between 0 and 15),
    units jsonb,
    pin_salt bytea,
    pin_verifier bytea,
    has_pin boolean not null generated always as (pin_verifier is not null) stored,
    wrong integer not null default 0,
    wait_until timestamptz,
    version integer not null default 1,
    left_at timestamptz,
    created_at timestamptz not null default now(),
    unique (shop_id, id)
);
create unique index member_name on member (shop_id, lower(name)) where left_at is null;
create unique index member_account on member (shop_id, account_id) where left_at is null;

create table device (
    id uuid primary key,
    shop_id uuid not null references shop (id) on delete cascade,
    name text not null check (length(name) between 1 and 60),
    token_hash bytea not null unique,
    enrolled_by uuid,
    enrolled_at timestamptz not null default now(),
    seen_at timestamptz not null default now(),
    removed_at timestamptz,
    unique (shop_id, id)
);
create index device_of_shop on device (shop_id) where removed_at is null;

-- A code that makes one device a device of the shop, once, within ten minutes.
create table enrolment (
    code_hash bytea primary key,
    shop_id uuid not null references shop (id) on delete cascade,
    made_by uuid,
    expires_at timestamptz not null
);

create table seat_session (
    id uuid primary key,
    token_hash bytea not null unique,
    shop_id uuid not null references shop (id) on delete cascade,
    member_id uuid not null,
    device_id uuid,
    way text not null check (way in ('pin', 'passphrase', 'slip')),
    started_at timestamptz not null default now(),
    seen_at timestamptz not null default now(),
    expires_at timestamptz not null,
    ended_at timestamptz,
    foreign key (shop_id, member_id) references member (shop_id, id) on delete cascade,
    foreign key (shop_id, device_id) references device (shop_id, id) on delete cascade
);
create index seat_of_shop on seat_session (shop_id, started_at) where ended_at is null;

-- What the browser's cookie stands for.
create table web_session (
    key_hash bytea primary key,
    state text not null,
    expires_at timestamptz not null
);
create index web_session_age on web_session (expires_at);

-- Secret of this database: what an unknown name is answered with looks like a known one's.
create table hidden (
    only_one boolean primary key default true check (only_one),
    secret bytea not null
);
insert into hidden (secret) values (decode(replace(gen_random_uuid()::text || gen_random_uuid()::text, '-', ''), 'hex'));

-- Every change of every row: who, from which device, what before and what after. Nobody but the owner of the tables
-- changes it, and they only to take out what is personal.
create table audit (
    id bigint generated always as identity primary key,
    at timestamptz not null default clock_timestamp(),
    shop_id uuid not null references shop (id) on delete cascade,
    job_id uuid,
    member_id uuid,
    device_id uuid,
    what text not null,
    row_id text not null,
    change text not null check (change in ('made', 'changed', 'removed', 'erased')),
    before jsonb,
    after jsonb
);
create index audit_of_job on audit (shop_id, job_id, id);
create index audit_of_member on audit (shop_id, member_id, id);

-- Who sits there: by the session this transaction names, or in a shop without an owner by the shop it names.
create function seat(out shop uuid, out member uuid, out role text, out device uuid)
language plpgsql stable security definer set search_path = public, pg_temp as $$
declare
    token text := coalesce(current_setting('app.session', true), '');
    named uuid := nullif(current_setting('app.shop', true), '')::uuid;
begin
    if token <> '' then
        select s.shop_id, s.member_id, m.role, s.device_id into shop, member, role, device
        from seat_session s
        join member m on m.id = s.member_id and m.left_at is null
        left join device d on d.id = s.device_id
        where s.token_hash = sha256(convert_to(token, 'UTF8')) and s.ended_at is null and s.expires_at > clock_timestamp()
          and d.removed_at is null;
        return;
    end if;
    if named is null then return; end if;
    -- Rights come with an owner: until there is one everybody may everything.
    select s.id, m.id, 'owner' into shop, member, role
    from shop s
    left join member m on m.shop_id = s.id and m.left_at is null
        and m.id = nullif(current_setting('app.member', true), '')::uuid
    where s.id = named and not s.locked;
end $$;

create function here() returns uuid language sql stable security definer set search_path = public, pg_temp as
    'select shop from seat()';
create function may(asked text) returns boolean language sql stable security definer set search_path = public, pg_temp as
    'select exists (select 1 from seat() s join role_act r on r.role = s.role and r.act = asked)';

-- Which member did it is not said by the application but by the seat.
alter table event add column member_id uuid, add column device_id uuid;
alter table reading add column member_id uuid;
alter table done_step add column member_id uuid;
alter table note add column member_id uuid;
alter table tread_line add column member_id uuid;
alter table plan add column member_id uuid;
create index event_of_member on event (shop_id, member_id, id);
create index event_of_shop on event (shop_id, id);

create function sign_row() returns trigger language plpgsql security definer set search_path = public, pg_temp as $$
begin
    select member into new.member_id from seat();
    return new;
end $$;
create function sign_event() returns trigger language plpgsql security definer set search_path = public, pg_temp as $$
begin
    select member, device into new.member_id, new.device_id from seat();
    return new;
end $$;

-- What of a row differs, a document by its own parts.
create function differs(old_row jsonb, new_row jsonb, out before jsonb, out after jsonb)
language plpgsql immutable set search_path = public, pg_temp as $$
declare
    k text; inner_before jsonb; inner_after jsonb;
begin
    before := '{}'; after := '{}';
    for k in select jsonb_object_keys(old_row || new_row) loop
        continue when old_row -> k is not distinct from new_row -> k;
        if jsonb_typeof(old_row -> k) = 'object' and jsonb_typeof(new_row -> k) = 'object' then
            select d.before, d.after into inner_before, inner_after from differs(old_row -> k, new_row -> k) d;
            before := before || jsonb_build_object(k, inner_before);
            after := after || jsonb_build_object(k, inner_after);
        else
            before := before || jsonb_build_object(k, old_row -> k);
            after := after || jsonb_build_object(k, new_row -> k);
        end if;
    end loop;
end $$;

create function keep_audit() returns trigger language plpgsql security definer set search_path = public, pg_temp as $$
declare
    o jsonb := case when tg_op = 'INSERT' then null else to_jsonb(old) end;
    n jsonb := case when tg_op = 'DELETE' then null else to_jsonb(new) end;
    r jsonb := coalesce(n, o);
    job uuid;
    who record;
    secret text[] := array['pin_salt', 'pin_verifier', 'token_hash', 'slip_salt', 'slip_verifier', 'wrong', 'wait_until',
        'seen_at', 'updated_at', 'jpeg'];
    d record;
begin
    -- A shop that is removed takes its record along.
    if tg_op = 'DELETE' and not exists (select 1 from shop where id = (r ->> case tg_table_name when 'shop' then 'id' else 'shop_id' end)::uuid) then
        return null;
    end if;
    select * into who from seat();
    -- The owner of the tables at work (demo data, a migration, a restore) is no member: its rows tell themselves.
    if who.shop is null then return null; end if;
    o := o - secret; n := n - secret;
    if tg_op = 'UPDATE' and o = n then return null; end if;
    job := case tg_table_name
        when 'job' then (r ->> 'id')::uuid
        when 'done_step' then (select p.job_id from plan p where p.id = (r ->> 'plan_id')::uuid)
        when 'photo' then (select x.job_id from note x where x.id = (r ->> 'note_id')::uuid)
        else nullif(r ->> 'job_id', '')::uuid end;
    if tg_op = 'UPDATE' then
        select x.before, x.after into d from differs(o, n) x;
    else
        select o as before, n as after into d;
    end if;
    insert into audit (shop_id, job_id, member_id, device_id, what, row_id, change, before, after)
    values ((r ->> case tg_table_name when 'shop' then 'id' else 'shop_id' end)::uuid, job, who.member, who.device,
        tg_table_name,
        coalesce(r ->> 'id', r ->> 'note_id', concat_ws('/', coalesce(r ->> 'plan_id', r ->> 'job_id'), coalesce(r ->> 'step', r ->> 'kind'))),
        case tg_op when 'INSERT' then 'made' when 'UPDATE' then 'changed' else 'removed' end, d.before, d.after);
    return null;
end $$;

-- What changed is told to every server process, so that every open screen follows.
create function tell_event() returns trigger language plpgsql security definer set search_path = public, pg_temp as $$
begin
    perform pg_notify('bold_stance', json_build_object('id', new.id, 'shop', new.shop_id, 'job', new.job_id,
        'member', new.member_id, 'what', new.what)::text);
    return null;
end $$;
create trigger tell after insert on event for each row execute function tell_event();
create trigger sign before insert on event for each row execute function sign_event();

do $$
declare t text;
begin
    foreach t in array array['reading', 'done_step', 'note', 'tread_line', 'plan'] loop
        execute format('create trigger sign before insert on %I for each row execute function sign_row()', t);
    end loop;
    foreach t in array array['vehicle', 'job', 'reading', 'visit', 'plan', 'done_step', 'shop_part', 'shop_aim', 'shop_shape',
            'tyre', 'tread_line', 'note', 'photo', 'shop', 'member', 'device'] loop
        execute format('create trigger audit after insert or update or delete on %I for each row execute function keep_audit()', t);
    end loop;
end $$;

-- Row-level security of the role that serves. The owner of the tables is not bound: it migrates, backs up and restores.
do $$
declare t text;
begin
    foreach t in array array['vehicle', 'job', 'reading', 'plan', 'done_step', 'event', 'visit', 'shop_part', 'shop_aim',
            'tyre', 'tread_line', 'write_key', 'note', 'photo', 'shop_shape'] loop
        execute format('alter table %I no force row level security', t);
        execute format('drop policy own_shop on %I', t);
    end loop;
    foreach t in array array['vehicle', 'job', 'reading', 'plan', 'done_step', 'event', 'visit', 'shop_part', 'shop_aim',
            'tyre', 'tread_line', 'write_key', 'note', 'photo', 'shop_shape', 'member', 'device', 'seat_session', 'audit'] loop
        execute format('alter table %I enable row level security', t);
    end loop;
    foreach t in array array['vehicle', 'job', 'reading', 'plan', 'done_step', 'event', 'visit', 'shop_part', 'shop_aim',
            'tyre', 'tread_line', 'note', 'photo', 'shop_shape'] loop
        execute format('create policy looks on %I for select using (shop_id = (select here()) and (select may(''look'')))', t);
    end loop;
end $$;

create policy makes on vehicle for insert with check (shop_id = (select here()) and (select may('ticket')));
create policy changes on vehicle for update using (shop_id = (select here()) and (select may('measure')));
create policy makes on job for insert with check (shop_id = (select here()) and (select may('ticket')));
create policy changes on job for update using (shop_id = (select here()) and (select may('ticket')));
create policy makes on reading for insert with check (shop_id = (select here()) and (select may('measure')));
create policy makes on visit for insert with check (shop_id = (select here()) and (select may('measure')));
create policy changes on visit for update using (shop_id = (select here()) and (select may('measure')));
-- Who opens the ticket of a car that was here takes its plan along.
create policy makes on plan for insert with check (shop_id = (select here()) and (select may('ticket')));
create policy changes on plan for update using (shop_id = (select here()) and (select may('plan')));
create policy removes on plan for delete using (shop_id = (select here()) and (select may('plan')));
-- A gate is opened by who may; a tick at it is work like any other.
create policy makes on done_step for insert with check (shop_id = (select here()) and (select may(
    case when step in ('fouls', 'settled', 'reswept', 'rear-read', 'proved') then 'gate' else 'turn' end)));
create policy changes on done_step for update using (shop_id = (select here()) and (select may('turn')));
create policy removes on done_step for delete using (shop_id = (select here()) and (select may('turn')));
create policy makes on event for insert with check (shop_id = (select here()));
create policy all_of on write_key using (shop_id = (select here()));
create policy makes on tyre for insert with check (shop_id = (select here()) and (select may('measure')));
create policy changes on tyre for update using (shop_id = (select here()) and (select may('measure')));
create policy makes on tread_line for insert with check (shop_id = (select here()) and (select may('measure')));
create policy makes on note for insert with check (shop_id = (select here()) and (select may('ticket')));
create policy changes on note for update using (shop_id = (select here()) and (select may('ticket')));
create policy makes on photo for insert with check (shop_id = (select here()) and (select may('ticket')));
create policy removes on photo for delete using (shop_id = (select here()) and (select may('ticket')));
do $$
declare t text;
begin
    foreach t in array array['shop_part', 'shop_aim', 'shop_shape'] loop
        execute format('create policy makes on %I for insert with check (shop_id = (select here()) and (select may(''library'')))', t);
        execute format('create policy changes on %I for update using (shop_id = (select here()) and (select may(''library'')))', t);
        execute format('create policy removes on %I for delete using (shop_id = (select here()) and (select may(''library'')))', t);
    end loop;
end $$;
alter table shop enable row level security;
create policy looks on shop for select using (id = (select here()));
create policy changes on shop for update using (id = (select here()) and (select may('settings')));
create policy looks on member for select using (shop_id = (select here()));
create policy makes on member for insert with check (shop_id = (select here()) and (select may('people')));
create policy changes on member for update using (shop_id = (select here()) and (select may('people')));
create policy looks on device for select using (shop_id = (select here()) and ((select may('people')) or id = (select device from seat())));
create policy changes on device for update using (shop_id = (select here()) and (select may('people')));
create policy looks on seat_session for select using (shop_id = (select here())
    and ((select may('people')) or member_id = (select member from seat())));
create policy ends on seat_session for update using (shop_id = (select here())
    and ((select may('people')) or member_id = (select member from seat())));
create policy looks on audit for select using (shop_id = (select here()) and (select may('records')));

-- Signing in. What is typed is never sent here: the server sends what Argon2id makes of it with the salt it is given, and
-- what is kept is the SHA-256 of that.

-- The members of the shop a device belongs to, for it to ask who is there; a locked shop tells nobody else.
create function at_the_bench(device_token text)
returns table (shop uuid, shop_name text, device uuid, device_name text, member uuid, name text, role text, mark integer,
    has_pin boolean, wait_s double precision)
language sql volatile security definer set search_path = public, pg_temp as $$
    update device set seen_at = clock_timestamp()
        where token_hash = sha256(convert_to(device_token, 'UTF8')) and seen_at < clock_timestamp() - interval '1 minute';
    select s.id, s.name, d.id, d.name, m.id, m.name, m.role, m.mark, m.pin_verifier is not null,
        greatest(extract(epoch from m.wait_until - clock_timestamp()), 0)::double precision
    from device d join shop s on s.id = d.shop_id join member m on m.shop_id = s.id and m.left_at is null
    where d.token_hash = sha256(convert_to(device_token, 'UTF8')) and d.removed_at is null
    order by m.created_at, m.id;
$$;

create function pin_salt(device_token text, member_id uuid) returns bytea
language sql stable security definer set search_path = public, pg_temp as $$
    select m.pin_salt from device d join member m on m.shop_id = d.shop_id and m.left_at is null
    where d.token_hash = sha256(convert_to(device_token, 'UTF8')) and d.removed_at is null and m.id = pin_salt.member_id;
$$;

-- Answers how long to wait, or null for who may not at all; a session is there when it answers 0. Five wrong, two minutes.
create function sign_in_pin(device_token text, member_id uuid, proof bytea, token text, hours double precision)
returns double precision
language plpgsql security definer set search_path = public, pg_temp as $$
declare
    m member; d device;
begin
    select * into d from device x where x.token_hash = sha256(convert_to(device_token, 'UTF8')) and x.removed_at is null;
    if not found then return null; end if;
    select * into m from member x where x.id = sign_in_pin.member_id and x.shop_id = d.shop_id and x.left_at is null for update;
    if not found or m.pin_verifier is null then return null; end if;
    if m.wait_until > clock_timestamp() then
        return greatest(extract(epoch from m.wait_until - clock_timestamp()), 1);
    end if;
    if sha256(proof) <> m.pin_verifier then
        update member set wrong = (m.wrong + 1) % 5,
            wait_until = case when m.wrong + 1 >= 5 then clock_timestamp() + interval '2 minutes' end where id = m.id;
        return case when m.wrong + 1 >= 5 then 120 else -(5 - m.wrong - 1) end;
    end if;
    update member set wrong = 0, wait_until = null where id = m.id;
    insert into seat_session (id, token_hash, shop_id, member_id, device_id, way, expires_at)
    values (gen_random_uuid(), sha256(convert_to(token, 'UTF8')), m.shop_id, m.id, d.id, 'pin',
        clock_timestamp() + make_interval(secs => hours * 3600));
    insert into event (shop_id, who, what) values (m.shop_id, m.name, 'signed in');
    return 0;
end $$;

create function passphrase_salt(login text) returns bytea
language sql stable security definer set search_path = public, pg_temp as $$
    select coalesce(
        (select a.salt from account a where lower(a.login) = lower(passphrase_salt.login)),
        (select substr(sha256(h.secret || convert_to(lower(passphrase_salt.login), 'UTF8')), 1, 16) from hidden h));
$$;

-- Whether a passphrase is right, and what belongs to it; counts the wrong ones. `wait_s` as for a PIN; negative: so many left.
create function passphrase_right(login text, proof bytea, out wait_s double precision, out account uuid, out totp bytea, out step bigint)
language plpgsql security definer set search_path = public, pg_temp as $$
declare a account;
begin
    select * into a from account x where lower(x.login) = lower(passphrase_right.login) for update;
    if not found then wait_s := -1; return; end if;
    if a.wait_until > clock_timestamp() then
        wait_s := greatest(extract(epoch from a.wait_until - clock_timestamp()), 1); return;
    end if;
    if sha256(proof) <> a.verifier then
        update account x set wrong = (a.wrong + 1) % 5,
            wait_until = case when a.wrong + 1 >= 5 then clock_timestamp() + interval '2 minutes' end where x.id = a.id;
        wait_s := case when a.wrong + 1 >= 5 then 120 else -1 end; return;
    end if;
    wait_s := 0; account := a.id; totp := a.totp; step := a.totp_step;
end $$;

-- The shops somebody may choose from once the passphrase was right.
create function shops_of(login text, proof bytea) returns table (shop uuid, name text, member uuid)
language sql stable security definer set search_path = public, pg_temp as $$
    select s.id, s.name, m.id from account a join member m on m.account_id = a.id and m.left_at is null join shop s on s.id = m.shop_id
    where lower(a.login) = lower(shops_of.login) and a.verifier = sha256(proof) order by s.name, s.id;
$$;

create function sign_in_passphrase(login text, proof bytea, shop uuid, used_step bigint, device_token text, token text, hours double precision)
returns boolean
language plpgsql security definer set search_path = public, pg_temp as $$
declare a account; m member; d uuid;
begin
    select * into a from account x where lower(x.login) = lower(sign_in_passphrase.login) and x.verifier = sha256(proof)
        and (x.wait_until is null or x.wait_until <= clock_timestamp()) for update;
    if not found then return false; end if;
    -- A code of the second factor counts once.
    if a.totp is not null and (used_step is null or used_step <= a.totp_step) then return false; end if;
    select * into m from member x where x.account_id = a.id and x.shop_id = sign_in_passphrase.shop and x.left_at is null;
    if not found then return false; end if;
    update account x set wrong = 0, wait_until = null, totp_step = greatest(totp_step, coalesce(used_step, 0)) where x.id = a.id;
    select x.id into d from device x where x.shop_id = m.shop_id and x.removed_at is null
        and x.token_hash = sha256(convert_to(coalesce(device_token, ''), 'UTF8'));
    insert into seat_session (id, token_hash, shop_id, member_id, device_id, way, expires_at)
    values (gen_random_uuid(), sha256(convert_to(token, 'UTF8')), m.shop_id, m.id, d, 'passphrase',
        clock_timestamp() + make_interval(secs => hours * 3600));
    insert into event (shop_id, who, what) values (m.shop_id, m.name, 'signed in');
    return true;
end $$;

-- Who a session belongs to. One that was opened by a PIN ends by itself when nothing was asked for five minutes longer than
-- the bench takes to lock: the bench locks itself first.
create function whose(token text)
returns table (shop uuid, shop_name text, member uuid, name text, role text, mark integer, device uuid, session uuid, way text, trust jsonb)
language plpgsql volatile security definer set search_path = public, pg_temp as $$
begin
    update seat_session s set ended_at = clock_timestamp()
        from shop p where p.id = s.shop_id and s.token_hash = sha256(convert_to(token, 'UTF8')) and s.ended_at is null
        and s.way = 'pin' and s.seen_at < clock_timestamp()
            - make_interval(mins => 5 + coalesce((p.trust ->> 'lock_minutes')::integer, 5));
    update seat_session s set seen_at = clock_timestamp()
        where s.token_hash = sha256(convert_to(token, 'UTF8')) and s.seen_at < clock_timestamp() - interval '20 seconds';
    return query
    select s.shop_id, p.name, m.id, m.name, m.role, m.mark, s.device_id, s.id, s.way, p.trust
    from seat_session s join member m on m.id = s.member_id and m.left_at is null join shop p on p.id = s.shop_id
    left join device d on d.id = s.device_id
    where s.token_hash = sha256(convert_to(token, 'UTF8')) and s.ended_at is null and s.expires_at > clock_timestamp()
      and d.removed_at is null;
end $$;

create function sign_out(token text) returns void
language sql security definer set search_path = public, pg_temp as
    'update seat_session set ended_at = clock_timestamp() where token_hash = sha256(convert_to(token, ''UTF8'')) and ended_at is null';

-- An open shop, by its id or the first one made; a locked one is told by none of it but that it is locked.
create function the_shop(wanted uuid)
returns table (id uuid, name text, locked boolean)
language sql stable security definer set search_path = public, pg_temp as $$
    select s.id, s.name, s.locked from shop s where wanted is null or s.id = wanted order by s.created_at, s.id limit 1;
$$;

-- The first run: a name, an owner with a PIN, the slip that brings a lost PIN back. Locks the shop.
create function claim_shop(shop uuid, shop_name text, bays integer, owner uuid, owner_name text, salt bytea, verifier bytea,
    slip_salt bytea, slip_verifier bytea, device uuid, device_name text, device_token text, token text, hours double precision)
returns boolean
language plpgsql security definer set search_path = public, pg_temp as $$
declare s shop;
begin
    select * into s from shop x where x.id = claim_shop.shop for update;
    if not found or s.locked then return false; end if;
    update shop x set name = shop_name, bays = claim_shop.bays, locked = true, slip_salt = claim_shop.slip_salt,
        slip_verifier = claim_shop.slip_verifier where x.id = s.id;
    insert into member (id, shop_id, name, role, pin_salt, pin_verifier)
        values (owner, s.id, owner_name, 'owner', salt, verifier)
        on conflict (id) do update set name = excluded.name, role = 'owner', pin_salt = excluded.pin_salt,
            pin_verifier = excluded.pin_verifier, version = member.version + 1
            where member.shop_id = s.id;
    insert into device (id, shop_id, name, token_hash, enrolled_by)
        values (device, s.id, device_name, sha256(convert_to(device_token, 'UTF8')), owner);
    insert into seat_session (id, token_hash, shop_id, member_id, device_id, way, expires_at)
    values (gen_random_uuid(), sha256(convert_to(token, 'UTF8')), s.id, owner, device, 'pin',
        clock_timestamp() + make_interval(secs => hours * 3600));
    insert into event (shop_id, who, what) values (s.id, owner_name, 'shop claimed');
    return true;
end $$;

-- The slip brings the owner back: a new PIN for the owner it names. Five wrong slips an hour.
create table slip_try (shop_id uuid not null references shop (id) on delete cascade, at timestamptz not null default clock_timestamp());
create function slip_salt(shop uuid) returns bytea
language sql stable security definer set search_path = public, pg_temp as
    'select s.slip_salt from shop s where s.id = slip_salt.shop';
create function use_slip(shop uuid, proof bytea, salt bytea, verifier bytea, device uuid, device_name text, device_token text,
    token text, new_slip_salt bytea, new_slip_verifier bytea) returns boolean
language plpgsql security definer set search_path = public, pg_temp as $$
declare s shop; m member;
begin
    select * into s from shop x where x.id = use_slip.shop for update;
    if not found or (select count(*) from slip_try t where t.shop_id = s.id and t.at > clock_timestamp() - interval '1 hour') >= 5 then
        return false;
    end if;
    if s.slip_verifier is null or sha256(proof) <> s.slip_verifier then
        insert into slip_try (shop_id) values (s.id);
        return false;
    end if;
    select * into m from member x where x.shop_id = s.id and x.role = 'owner' and x.left_at is null order by x.created_at limit 1;
    if not found then return false; end if;
    update member x set pin_salt = use_slip.salt, pin_verifier = use_slip.verifier, wrong = 0, wait_until = null where x.id = m.id;
    -- A slip counts once: with it comes the next one.
    update shop x set slip_salt = new_slip_salt, slip_verifier = new_slip_verifier where x.id = s.id;
    update seat_session x set ended_at = clock_timestamp() where x.member_id = m.id and x.ended_at is null;
    insert into device (id, shop_id, name, token_hash, enrolled_by)
        values (device, s.id, device_name, sha256(convert_to(device_token, 'UTF8')), m.id);
    insert into seat_session (id, token_hash, shop_id, member_id, device_id, way, expires_at)
    values (gen_random_uuid(), sha256(convert_to(token, 'UTF8')), s.id, m.id, device, 'slip', clock_timestamp() + interval '1 hour');
    insert into event (shop_id, who, what) values (s.id, m.name, 'slip used');
    return true;
end $$;

-- A code that a new device types in; whoever sits there may enrol.
create function make_enrolment(code text) returns boolean
language plpgsql security definer set search_path = public, pg_temp as $$
declare who record;
begin
    select * into who from seat();
    if who.shop is null or not may('enrol') then return false; end if;
    delete from enrolment where expires_at < clock_timestamp();
    insert into enrolment (code_hash, shop_id, made_by, expires_at)
        values (sha256(convert_to(code, 'UTF8')), who.shop, who.member, clock_timestamp() + interval '10 minutes');
    return true;
end $$;
create function use_enrolment(code text, device uuid, device_name text, device_token text) returns text
language plpgsql security definer set search_path = public, pg_temp as $$
declare e enrolment;
begin
    delete from enrolment where code_hash = sha256(convert_to(code, 'UTF8')) and expires_at > clock_timestamp() returning * into e;
    if not found then return null; end if;
    insert into device (id, shop_id, name, token_hash, enrolled_by)
        values (device, e.shop_id, device_name, sha256(convert_to(device_token, 'UTF8')), e.made_by);
    insert into event (shop_id, who, what, detail)
        values (e.shop_id, device_name, 'device added', jsonb_build_object('device', device));
    return (select name from shop where id = e.shop_id);
end $$;
-- The device somebody sits at becomes one of the shop's.
create function enrol_here(device uuid, device_name text, device_token text, token text) returns boolean
language plpgsql security definer set search_path = public, pg_temp as $$
declare s seat_session;
begin
    select * into s from seat_session x where x.token_hash = sha256(convert_to(token, 'UTF8')) and x.ended_at is null;
    if not found or not may('enrol') then return false; end if;
    insert into device (id, shop_id, name, token_hash, enrolled_by)
        values (device, s.shop_id, device_name, sha256(convert_to(device_token, 'UTF8')), s.member_id);
    update seat_session x set device_id = device where x.id = s.id;
    return true;
end $$;

-- A PIN or passphrase of a member, set by the owner or by themselves with the one they have.
create function set_pin(member_id uuid, own_proof bytea, salt bytea, verifier bytea) returns boolean
language plpgsql security definer set search_path = public, pg_temp as $$
declare who record; m member;
begin
    select * into who from seat();
    select * into m from member x where x.id = set_pin.member_id and x.shop_id = who.shop and x.left_at is null for update;
    if not found then return false; end if;
    if not may('people') and (who.member is distinct from m.id or own_proof is null or sha256(own_proof) <> m.pin_verifier) then
        return false;
    end if;
    update member x set pin_salt = salt, pin_verifier = set_pin.verifier, wrong = 0, wait_until = null where x.id = m.id;
    update seat_session x set ended_at = clock_timestamp() where x.member_id = m.id and x.ended_at is null
        and x.token_hash <> sha256(convert_to(coalesce(current_setting('app.session', true), ''), 'UTF8'));
    insert into event (shop_id, who, what, detail) values (m.shop_id, m.name, 'PIN set', jsonb_build_object('member', m.id));
    return true;
end $$;
create function own_pin_salt() returns bytea
language sql stable security definer set search_path = public, pg_temp as
    'select m.pin_salt from member m where m.id = (select member from seat())';
-- Null: refused; false: the name is taken by somebody else.
create function set_passphrase(member_id uuid, login text, salt bytea, verifier bytea, totp bytea) returns boolean
language plpgsql security definer set search_path = public, pg_temp as $$
declare who record; m member; a account;
begin
    select * into who from seat();
    select * into m from member x where x.id = set_passphrase.member_id and x.shop_id = who.shop and x.left_at is null for update;
    if not found or not (may('people') or who.member = m.id) then return null; end if;
    select * into a from account x where lower(x.login) = lower(set_passphrase.login) for update;
    if found and a.id is distinct from m.account_id then return false; end if;
    if m.account_id is null then
        insert into account (id, login, salt, verifier, totp)
            values (gen_random_uuid(), set_passphrase.login, set_passphrase.salt, set_passphrase.verifier, set_passphrase.totp)
            returning * into a;
        update member x set account_id = a.id where x.id = m.id;
    else
        update account x set login = set_passphrase.login, salt = set_passphrase.salt, verifier = set_passphrase.verifier,
            totp = set_passphrase.totp, totp_step = 0, wrong = 0, wait_until = null where x.id = m.account_id;
    end if;
    insert into event (shop_id, who, what, detail) values (m.shop_id, m.name, 'passphrase set', jsonb_build_object('member', m.id));
    return true;
end $$;
create function login_of(member_id uuid, out login text, out second_factor boolean)
language sql stable security definer set search_path = public, pg_temp as $$
    select a.login, a.totp is not null from member m join account a on a.id = m.account_id
    where m.id = login_of.member_id and m.shop_id = (select here());
$$;

-- The units somebody reads in are their own.
create function set_own_units(own jsonb) returns void
language sql security definer set search_path = public, pg_temp as
    'update member set units = own where id = (select member from seat())';

-- What is personal of a job, taken out: words, plate, photos, and the same in what is kept of changes. Figures stay.
create function erase_personal(job uuid) returns boolean
language plpgsql security definer set search_path = public, pg_temp as $$
declare who record; j job; n uuid;
begin
    select * into who from seat();
    select * into j from job x where x.id = erase_personal.job and x.shop_id = who.shop for update;
    if not found or not may('records') then return false; end if;
    perform take_out_personal(j.id);
    insert into event (shop_id, job_id, who, what)
        values (j.shop_id, j.id, coalesce((select m.name from member m where m.id = who.member), 'Owner'), 'personal data erased');
    return true;
end $$;
create function take_out_personal(erased uuid) returns void
language plpgsql security definer set search_path = public, pg_temp as $$
declare v_name text;
begin
    delete from photo where note_id in (select id from note where job_id = erased);
    update note set text = '', struck = true where job_id = erased;
    update job set complaint = '', plate = '', version = version + 1 where id = erased;
    update audit set change = 'erased', before = null, after = null
        where job_id = erased and what in ('job', 'note', 'photo');
    -- What events tell of a note or of a ticket.
    update event set detail = '{}' where job_id = erased and what in ('ticket saved', 'note written', 'note struck out', 'job imported');
    delete from write_key where shop_id = (select shop_id from job where id = erased);
end $$;
revoke execute on function take_out_personal(uuid) from public;

-- What is due to go by what each shop's owner set; run once a day by whoever serves.
create function let_go_due() returns bigint
language plpgsql security definer set search_path = public, pg_temp as $$
declare j record; n bigint := 0;
begin
    for j in select x.id from job x join shop s on s.id = x.shop_id
        where (s.trust ->> 'keep_months') is not null and (x.complaint <> '' or x.plate <> ''
              or exists (select 1 from note o where o.job_id = x.id and o.text <> ''))
          and coalesce(x.archived_at, (x.aftercare #>> '{closed,at}')::timestamptz)
              < clock_timestamp() - make_interval(months => (s.trust ->> 'keep_months')::integer)
    loop
        perform take_out_personal(j.id);
        n := n + 1;
    end loop;
    return n;
end $$;

-- What a cookie is sealed with: the same for every server process of this database, another for every database.
create function cookie_secret() returns bytea language sql stable security definer set search_path = public, pg_temp as
    'select sha256(secret || convert_to(''cookie'', ''UTF8'')) from hidden';

-- The browser's session, by a key only the browser has.
create function web_session_get(key text) returns text language sql stable security definer set search_path = public, pg_temp as
    'select state from web_session where key_hash = sha256(convert_to(key, ''UTF8'')) and expires_at > clock_timestamp()';
create function web_session_put(key text, state text, seconds double precision) returns void
language sql security definer set search_path = public, pg_temp as $$
    delete from web_session where expires_at < clock_timestamp();
    insert into web_session (key_hash, state, expires_at)
        values (sha256(convert_to(key, 'UTF8')), state, clock_timestamp() + make_interval(secs => seconds))
        on conflict (key_hash) do update set state = excluded.state, expires_at = excluded.expires_at;
$$;
create function web_session_drop(key text) returns void language sql security definer set search_path = public, pg_temp as
    'delete from web_session where key_hash = sha256(convert_to(key, ''UTF8''))';

-- What each role can reach.
revoke all on all tables in schema public from public;
revoke all on all tables in schema public from bold_stance;
revoke execute on all functions in schema public from public;
grant select on role_act to bold_stance;
do $$ begin
    if to_regclass('_sqlx_migrations') is not null then grant select on _sqlx_migrations to bold_stance; end if;
end $$;
grant select, insert, update on vehicle, job, visit, tyre to bold_stance;
grant select, insert on reading, event, tread_line, note to bold_stance;
grant update (struck) on note to bold_stance;
grant select, insert, update, delete on plan, done_step, shop_part, shop_aim, shop_shape, write_key to bold_stance;
grant select, insert, delete on photo to bold_stance;
grant select (id, name, created_at, settings, version, locked, bays, trust) on shop to bold_stance;
grant update (settings, version, bays, trust, name) on shop to bold_stance;
grant select (id, shop_id, name, role, mark, units, has_pin, wrong, wait_until, version, left_at, created_at) on member to bold_stance;
grant insert (id, shop_id, name, role, mark) on member to bold_stance;
grant update (name, role, mark, units, version, left_at) on member to bold_stance;
grant select (id, shop_id, name, enrolled_by, enrolled_at, seen_at, removed_at) on device to bold_stance;
grant update (name, removed_at) on device to bold_stance;
grant select (id, shop_id, member_id, device_id, way, started_at, seen_at, expires_at, ended_at) on seat_session to bold_stance;
grant update (ended_at) on seat_session to bold_stance;
grant select on audit to bold_stance;
grant usage on all sequences in schema public to bold_stance;
grant execute on function seat(), here(), may(text), at_the_bench(text), pin_salt(text, uuid),
    sign_in_pin(text, uuid, bytea, text, double precision), passphrase_salt(text), passphrase_right(text, bytea),
    shops_of(text, bytea), sign_in_passphrase(text, bytea, uuid, bigint, text, text, double precision), whose(text), sign_out(text),
    the_shop(uuid), claim_shop(uuid, text, integer, uuid, text, bytea, bytea, bytea, bytea, uuid, text, text, text, double precision), slip_salt(uuid),
    use_slip(uuid, bytea, bytea, bytea, uuid, text, text, text, bytea, bytea), make_enrolment(text),
    use_enrolment(text, uuid, text, text), enrol_here(uuid, text, text, text), set_pin(uuid, bytea, bytea, bytea), own_pin_salt(),
    set_passphrase(uuid, text, bytea, bytea, bytea), login_of(uuid), set_own_units(jsonb), erase_personal(uuid), let_go_due(),
    web_session_get(text), web_session_put(text, text, double precision), web_session_drop(text), cookie_secret() to bold_stance;
