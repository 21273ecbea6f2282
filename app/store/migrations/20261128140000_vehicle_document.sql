-- The facts of a vehicle are one document, as its plans are: what front and rear told apart by the names of columns stands
-- at its axle now. What lists ask about stays a column, made from the document.
alter table vehicle no force row level security;
alter table vehicle add column document jsonb;

-- What is told of an axle beside its points. The inner joint of a drive shaft stands with the limits that it belongs to.
create function pg_temp.told(car jsonb, axle text, load_n jsonb, adjusters jsonb) returns jsonb language sql immutable as $$
    select jsonb_strip_nulls(jsonb_build_object(
            'load_n', load_n,
            'spring', car -> (axle || '_spring'),
            'settle_mm', case when axle = 'rear' then car -> 'rear_settle_mm' end,
            'tyre_gain_mm', car -> (axle || '_tyre_gain_mm'),
            'limits', jsonb_build_object('shaft_inner', car -> (axle || '_shaft_inner'))
                || jsonb_strip_nulls(coalesce(car -> case axle when 'front' then 'limits' else 'rear_limits' end, '{}'))))
        || jsonb_build_object('adjusters', coalesce(adjusters, '[]'))
$$;
create function pg_temp.levels(old jsonb) returns jsonb language sql immutable as $$
    select coalesce(jsonb_agg(jsonb_build_object('name', l -> 'name',
            'mm', jsonb_build_object('front', l -> 'front_mm', 'rear', l -> 'rear_mm')) order by n), '[]')
    from jsonb_array_elements(coalesce(old, '[]')) with ordinality as e (l, n)
$$;

update vehicle v set document = jsonb_build_object(
    'format', 2,
    'name', name,
    'silhouette', silhouette,
    'wheelbase_mm', wheelbase_mm,
    'tyre_size', tyre_size,
    'tyre_class', tyre_class,
    'tread_depth_mm', tread_depth_mm,
    'drive', drive,
    'use', use_mix,
    'pressure_kpa', pressure_kpa,
    'placard_kpa', placard_kpa,
    'axles', jsonb_build_object(
        'front', jsonb_build_object('geometry', geometry, 'knowledge', knowledge, 'track_mm', track_front_mm,
            'height_mm', design_height_mm),
        'rear', jsonb_build_object('geometry', rear_geometry, 'knowledge', rear_knowledge, 'track_mm', track_rear_mm,
            'height_mm', rear_height_mm, 'tyre_size', car #> '{wear,rear_tyre_size}',
            'pressure_kpa', car #> '{wear,rear_pressure_kpa}', 'placard_kpa', car #> '{wear,rear_placard_kpa}')),
    'car', (car - array['front_load_n', 'rear_load_n', 'front_spring', 'rear_spring', 'rear_settle_mm',
            'front_tyre_gain_mm', 'rear_tyre_gain_mm', 'front_shaft_inner', 'rear_shaft_inner', 'limits', 'rear_limits',
            'rear_adjusters', 'levels', 'wear'])
        || jsonb_build_object(
            'levels', pg_temp.levels(car -> 'levels'),
            'wear', coalesce(car -> 'wear', '{}') - array['rear_tyre_size', 'rear_pressure_kpa', 'rear_placard_kpa'],
            'axles', jsonb_build_object(
                'front', pg_temp.told(car, 'front', to_jsonb(front_load_n), adjusters),
                'rear', pg_temp.told(car, 'rear', coalesce(car -> 'rear_load_n', '5000'), car -> 'rear_adjusters'))));

alter table vehicle
    alter column document set not null,
    drop column name, drop column silhouette, drop column wheelbase_mm, drop column track_front_mm,
    drop column track_rear_mm, drop column tyre_size, drop column tyre_class, drop column tread_depth_mm,
    drop column drive, drop column use_mix, drop column front_load_n, drop column pressure_kpa,
    drop column placard_kpa, drop column design_height_mm, drop column rear_height_mm, drop column knowledge,
    drop column geometry, drop column adjusters, drop column rear_geometry, drop column rear_knowledge,
    drop column car;
alter table vehicle
    add column name text generated always as (document ->> 'name') stored check (length(name) between 1 and 120),
    add column silhouette text generated always as (document ->> 'silhouette') stored,
    add column tyre_size text generated always as (document ->> 'tyre_size') stored,
    add column drive text generated always as (document ->> 'drive') stored;
alter table vehicle force row level security;
