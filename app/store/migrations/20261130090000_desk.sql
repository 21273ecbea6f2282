-- What the desk finds a car by, and jobs that are put away: out of every list, still there to be found.
alter table job
    add column plate text not null default '' check (length(plate) <= 20),
    add column odometer_km double precision check (odometer_km between 0 and 5000000),
    add column archived_at timestamptz;
