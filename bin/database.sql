-- What only an administrator of the database server may do, in a new database of Dry Arc: psql --dbname=dryarc --file=bin/database.sql
-- Run again, it changes nothing. Each role is given a password of its own beside it (\password dryarc_app, and so on).
DO $$
DECLARE name text;
BEGIN
  -- Owns the schema and changes it; answers requests; lets people in; does the long work; reads every row for a backup.
  FOREACH name IN ARRAY ARRAY['dryarc', 'dryarc_app', 'dryarc_door', 'dryarc_worker', 'dryarc_backup'] LOOP
    IF NOT EXISTS (SELECT FROM pg_roles WHERE rolname = name) THEN EXECUTE format('CREATE ROLE %I LOGIN', name); END IF;
  END LOOP;
  EXECUTE format('ALTER DATABASE %I OWNER TO dryarc', current_database());
END $$;
ALTER ROLE dryarc_backup BYPASSRLS;
GRANT pg_read_all_data TO dryarc_backup;
CREATE EXTENSION IF NOT EXISTS postgis;
-- Boxes of shapes are compared without a word about what is in them: said so, the index over shapes answers beneath the guard of rows.
ALTER FUNCTION geometry_overlaps(geometry, geometry) LEAKPROOF;
