ALTER TABLE "design" DROP CONSTRAINT "design_near_radio_id_radio_id_fk";--> statement-breakpoint
ALTER TABLE "design" DROP CONSTRAINT "design_far_radio_id_radio_id_fk";--> statement-breakpoint
ALTER TABLE "design" DROP CONSTRAINT "design_near_antenna_id_antenna_id_fk";--> statement-breakpoint
ALTER TABLE "design" DROP CONSTRAINT "design_far_antenna_id_antenna_id_fk";--> statement-breakpoint
-- All that was here belongs to the first firm; what ships is written anew beside it.
ALTER TABLE "antenna" ADD COLUMN "organisation_id" uuid DEFAULT own_organisation() NOT NULL;--> statement-breakpoint
ALTER TABLE "part" ADD COLUMN "organisation_id" uuid DEFAULT own_organisation() NOT NULL;--> statement-breakpoint
ALTER TABLE "radio" ADD COLUMN "organisation_id" uuid DEFAULT own_organisation() NOT NULL;--> statement-breakpoint
ALTER TABLE "terrain_dataset" ADD COLUMN "organisation_id" uuid DEFAULT own_organisation() NOT NULL;--> statement-breakpoint
ALTER TABLE "change" ADD COLUMN "organisation_id" uuid DEFAULT own_organisation() NOT NULL;--> statement-breakpoint
ALTER TABLE "link_verdict" ADD COLUMN "organisation_id" uuid DEFAULT own_organisation() NOT NULL;--> statement-breakpoint
ALTER TABLE "made_edit" ADD COLUMN "organisation_id" uuid DEFAULT own_organisation() NOT NULL;--> statement-breakpoint
UPDATE "change" t SET "organisation_id" = j."organisation_id" FROM "job" j WHERE j."id" = t."job_id" AND j."organisation_id" <> t."organisation_id";--> statement-breakpoint
ALTER TABLE "change" ADD CONSTRAINT "change_organisation_id_organisation_id_fk" FOREIGN KEY ("organisation_id") REFERENCES "public"."organisation"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
UPDATE "link_verdict" t SET "organisation_id" = j."organisation_id" FROM "job" j WHERE j."id" = t."job_id" AND j."organisation_id" <> t."organisation_id";--> statement-breakpoint
ALTER TABLE "link_verdict" ADD CONSTRAINT "link_verdict_organisation_id_organisation_id_fk" FOREIGN KEY ("organisation_id") REFERENCES "public"."organisation"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "made_edit" ADD CONSTRAINT "made_edit_organisation_id_organisation_id_fk" FOREIGN KEY ("organisation_id") REFERENCES "public"."organisation"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "antenna" DROP CONSTRAINT "antenna_pkey";--> statement-breakpoint
ALTER TABLE "antenna" ADD CONSTRAINT "antenna_organisation_id_id_pk" PRIMARY KEY("organisation_id","id");--> statement-breakpoint
ALTER TABLE "part" DROP CONSTRAINT "part_pkey";--> statement-breakpoint
ALTER TABLE "part" ADD CONSTRAINT "part_organisation_id_id_pk" PRIMARY KEY("organisation_id","id");--> statement-breakpoint
ALTER TABLE "radio" DROP CONSTRAINT "radio_pkey";--> statement-breakpoint
ALTER TABLE "radio" ADD CONSTRAINT "radio_organisation_id_id_pk" PRIMARY KEY("organisation_id","id");--> statement-breakpoint
-- A design names data sheets that its firm has, or that ship; a sheet that was taken away is still one.
CREATE FUNCTION design_knows_sheets() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE
  firm uuid := (SELECT j.organisation_id FROM link l JOIN job j ON j.id = l.job_id WHERE l.id = NEW.link_id);
  wanted text;
BEGIN
  FOREACH wanted IN ARRAY ARRAY[NEW.near_radio_id, NEW.far_radio_id] LOOP
    IF NOT EXISTS (SELECT FROM radio WHERE id = wanted AND organisation_id IN (firm, '00000000-0000-0000-0000-000000000000')) THEN
      RAISE foreign_key_violation USING MESSAGE = format('no radio "%s"', wanted);
    END IF;
  END LOOP;
  FOREACH wanted IN ARRAY array_remove(ARRAY[NEW.near_antenna_id, NEW.far_antenna_id], NULL) LOOP
    IF NOT EXISTS (SELECT FROM antenna WHERE id = wanted AND organisation_id IN (firm, '00000000-0000-0000-0000-000000000000')) THEN
      RAISE foreign_key_violation USING MESSAGE = format('no antenna "%s"', wanted);
    END IF;
  END LOOP;
  RETURN NEW;
END $$;--> statement-breakpoint
CREATE TRIGGER design_sheets BEFORE INSERT OR UPDATE OF near_radio_id, far_radio_id, near_antenna_id, far_antenna_id, link_id ON design FOR EACH ROW EXECUTE FUNCTION design_knows_sheets();--> statement-breakpoint
CREATE OR REPLACE FUNCTION stale_of_link() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF TG_OP = 'INSERT' THEN
    INSERT INTO link_verdict (link_id, job_id, organisation_id) SELECT NEW.id, NEW.job_id, j.organisation_id FROM job j WHERE j.id = NEW.job_id;
    PERFORM pg_notify('dryarc_verdict', '');
  ELSIF (NEW.near_site_id, NEW.far_site_id, NEW.ground_told, NEW.deleted_at) IS DISTINCT FROM (OLD.near_site_id, OLD.far_site_id, OLD.ground_told, OLD.deleted_at) THEN
    PERFORM stale_links(ARRAY[NEW.id]);
  END IF;
  RETURN NULL;
END $$;--> statement-breakpoint
DROP FUNCTION stale_links_near(uuid, geometry);--> statement-breakpoint
-- Links whose path comes near an area: within the widest corridor a profile looks at, and the 500 m a mounting point may lie
-- off its site. Degrees of longitude, the shorter ones, are taken for both ways. Of one job; without one, of a firm; of no firm: all.
CREATE FUNCTION stale_links_near(of_job uuid, of_firm uuid, area geometry) RETURNS void LANGUAGE plpgsql AS $$
BEGIN
  PERFORM stale_links(ARRAY(
    SELECT l.id FROM link l JOIN job j ON j.id = l.job_id JOIN site n ON n.id = l.near_site_id JOIN site f ON f.id = l.far_site_id
    WHERE (of_job IS NULL OR l.job_id = of_job) AND (of_firm = '00000000-0000-0000-0000-000000000000' OR j.organisation_id = coalesce(of_firm, j.organisation_id))
      AND l.deleted_at IS NULL
      AND ST_DWithin(
        ST_SetSRID(ST_MakeLine(ST_MakePoint(n.lon_deg, n.lat_deg), ST_MakePoint(f.lon_deg, f.lat_deg)), 4326), area,
        (900 + 0.27 * sqrt(ST_DistanceSphere(ST_MakePoint(n.lon_deg, n.lat_deg), ST_MakePoint(f.lon_deg, f.lat_deg))))
          / (111320 * greatest(0.02, cos(radians(n.lat_deg)))))));
END $$;--> statement-breakpoint
CREATE OR REPLACE FUNCTION stale_of_new_drawn() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE j record;
BEGIN
  FOR j IN EXECUTE format('SELECT job_id, CASE WHEN count(*) > 200 THEN ST_SetSRID(ST_Extent(%1$I)::geometry, 4326) ELSE ST_Collect(%1$I) END AS area FROM changed GROUP BY job_id', TG_ARGV[0]) LOOP
    PERFORM stale_links_near(j.job_id, NULL, j.area);
  END LOOP;
  RETURN NULL;
END $$;--> statement-breakpoint
CREATE OR REPLACE FUNCTION stale_of_changed_drawn() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE j record;
BEGIN
  FOR j IN EXECUTE format('SELECT job_id, CASE WHEN count(*) > 400 THEN ST_SetSRID(ST_Extent(%1$I)::geometry, 4326) ELSE ST_Collect(%1$I) END AS area FROM (SELECT job_id, %1$I FROM was UNION ALL SELECT job_id, %1$I FROM changed) both_ways GROUP BY job_id', TG_ARGV[0]) LOOP
    PERFORM stale_links_near(j.job_id, NULL, j.area);
  END LOOP;
  RETURN NULL;
END $$;--> statement-breakpoint
CREATE OR REPLACE FUNCTION stale_of_terrain() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF TG_OP = 'INSERT' THEN
    IF NEW.ready THEN PERFORM stale_links_near(NULL, NEW.organisation_id, NEW.coverage); END IF;
  ELSIF (NEW.ready, NEW.deleted_at, NEW.sigma_m, NEW.kind, NEW.datum_offset_m, NEW.name) IS DISTINCT FROM (OLD.ready, OLD.deleted_at, OLD.sigma_m, OLD.kind, OLD.datum_offset_m, OLD.name) THEN
    PERFORM stale_links_near(NULL, NEW.organisation_id, NEW.coverage);
  END IF;
  RETURN NULL;
END $$;--> statement-breakpoint
CREATE OR REPLACE FUNCTION stale_of_sheet() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF TG_OP = 'UPDATE' AND NEW.sheet = OLD.sheet AND NEW.deleted_at IS NOT DISTINCT FROM OLD.deleted_at THEN RETURN NULL; END IF;
  PERFORM stale_links(ARRAY(SELECT d.link_id FROM design d JOIN link l ON l.id = d.link_id JOIN job j ON j.id = l.job_id
    WHERE d.chosen AND d.deleted_at IS NULL AND NEW.organisation_id IN (j.organisation_id, '00000000-0000-0000-0000-000000000000')
      AND NEW.id IN (d.near_radio_id, d.far_radio_id, d.near_antenna_id, d.far_antenna_id)));
  RETURN NULL;
END $$;