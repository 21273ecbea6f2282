-- Many shops with many jobs each, after the shop that `shop` made and the demo: cars, readings and plans are the demo's. For rehearsals.
do $$ declare t text; begin
  foreach t in array array['job','vehicle','reading','plan','event','visit'] loop
    execute format('alter table %I disable trigger user', t);
  end loop;
end $$;
create temp table made as
  select g as n, gen_random_uuid() as shop, gen_random_uuid() as account, gen_random_uuid() as member from generate_series(1, :shops) g;
insert into shop (id, name, locked, bays, settings, trust, slip_salt, slip_verifier)
  select m.shop, 'Shop ' || m.n, s.locked, s.bays, s.settings, s.trust, s.slip_salt, s.slip_verifier from made m, shop s where s.name = 'Shop 0';
insert into account (id, login, salt, verifier) select m.account, 'shop' || m.n, a.salt, a.verifier from made m, account a where a.login = 'shop0';
insert into member (id, shop_id, account_id, name, role) select m.member, m.shop, m.account, 'Owner', 'owner' from made m;
create temp table of_demo as
  select j.*, row_number() over (order by j.ticket) - 1 as k, count(*) over () as n from job j where j.shop_id not in (select shop from made)
    and exists (select 1 from plan p where p.job_id = j.id);
create temp table jobs as
  select gen_random_uuid() as job, gen_random_uuid() as vehicle, m.shop, g as ticket, d.id as old, d.vehicle_id as old_vehicle
  from made m, generate_series(417, 416 + :jobs) g, of_demo d where d.k = g % d.n;
insert into vehicle (id, shop_id, document) select j.vehicle, j.shop, v.document from jobs j join vehicle v on v.id = j.old_vehicle;
insert into job (id, shop_id, vehicle_id, ticket, complaint, stage, kind, created_at)
  select j.job, j.shop, j.vehicle, j.ticket, o.complaint, o.stage, o.kind, now() - (random() * 300) * interval '1 day' from jobs j join job o on o.id = j.old;
insert into visit (shop_id, job_id, kind, version, answers, author) select j.shop, j.job, v.kind, v.version, v.answers, v.author
  from jobs j join visit v on v.job_id = j.old;
insert into reading (id, shop_id, job_id, visit, quantity, side, method, raw, unit, value, sigma, author, taken_at, axle, corrections, also, doubt, notes,
    jack, jacked_height, height_mm)
  select gen_random_uuid(), j.shop, j.job, r.visit, r.quantity, r.side, r.method, r.raw, r.unit, r.value, r.sigma, r.author, r.taken_at, r.axle, r.corrections,
    r.also, r.doubt, r.notes, r.jack, r.jacked_height, r.height_mm
  from jobs j join reading r on r.job_id = j.old;
insert into plan (id, shop_id, job_id, version, name, document) select gen_random_uuid(), j.shop, j.job, p.version, p.name, p.document
  from jobs j join plan p on p.job_id = j.old;
insert into event (shop_id, job_id, who, what, detail) select j.shop, j.job, e.who, e.what, e.detail from jobs j join event e on e.job_id = j.old;
do $$ declare t text; begin
  foreach t in array array['job','vehicle','reading','plan','event','visit'] loop
    execute format('alter table %I enable trigger user', t);
  end loop;
end $$;
-- Nobody works in the demo here: on a network a shop without an owner is not served.
update shop set locked = true;
analyze;
select (select count(*) from shop) || ' shops, ' || (select count(*) from job) || ' jobs, ' || (select count(*) from reading) || ' readings, ' ||
  pg_size_pretty(pg_database_size(current_database()));
