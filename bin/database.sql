-- What only an administrator of the database server may do, in a new database of Dry Arc. Run again, it changes nothing.
CREATE EXTENSION IF NOT EXISTS postgis;
-- Boxes of shapes are compared without a word about what is in them: said so, the index over shapes answers beneath the guard of rows.
ALTER FUNCTION geometry_overlaps(geometry, geometry) LEAKPROOF;
