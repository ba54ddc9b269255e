CREATE TABLE "beat" (
	"id" text PRIMARY KEY NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "link_verdict" (
	"link_id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"want" bigint DEFAULT 1 NOT NULL,
	"have" bigint DEFAULT 0 NOT NULL,
	"judgement" jsonb,
	"program" text DEFAULT '' NOT NULL,
	"claimed_until" timestamp with time zone,
	"asked_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "made_edit" (
	"id" uuid PRIMARY KEY NOT NULL,
	"answer" jsonb,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "file_import" ALTER COLUMN "job_id" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "antenna" ADD COLUMN "import_id" uuid;--> statement-breakpoint
ALTER TABLE "file_import" ADD COLUMN "attempts" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "radio" ADD COLUMN "import_id" uuid;--> statement-breakpoint
ALTER TABLE "link_verdict" ADD CONSTRAINT "link_verdict_link_id_link_id_fk" FOREIGN KEY ("link_id") REFERENCES "public"."link"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "link_verdict" ADD CONSTRAINT "link_verdict_job_id_job_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."job"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "link_verdict_job" ON "link_verdict" USING btree ("job_id");--> statement-breakpoint
CREATE INDEX "link_verdict_stale" ON "link_verdict" USING btree ("asked_at") WHERE have <> want;--> statement-breakpoint
CREATE INDEX "made_edit_at" ON "made_edit" USING btree ("at");--> statement-breakpoint
CREATE INDEX "link_near" ON "link" USING btree ("near_site_id");--> statement-breakpoint
CREATE INDEX "link_far" ON "link" USING btree ("far_site_id");--> statement-breakpoint
INSERT INTO "link_verdict" ("link_id", "job_id") SELECT "id", "job_id" FROM "link";--> statement-breakpoint
-- Raises what is wanted of some links, always in one order, and wakes who works it out.
CREATE FUNCTION stale_links(ids uuid[]) RETURNS void LANGUAGE plpgsql AS $$
BEGIN
  IF ids IS NULL OR cardinality(ids) = 0 THEN RETURN; END IF;
  PERFORM 1 FROM link_verdict WHERE link_id = ANY(ids) ORDER BY link_id FOR UPDATE;
  UPDATE link_verdict SET want = want + 1, claimed_until = NULL WHERE link_id = ANY(ids);
  PERFORM pg_notify('dryarc_verdict', '');
END $$;--> statement-breakpoint
-- Links whose path comes near an area: within the widest corridor a profile looks at, and the 500 m a mounting point may lie
-- off its site. Degrees of longitude, the shorter ones, are taken for both ways.
CREATE FUNCTION stale_links_near(of_job uuid, area geometry) RETURNS void LANGUAGE plpgsql AS $$
BEGIN
  PERFORM stale_links(ARRAY(
    SELECT l.id FROM link l JOIN site n ON n.id = l.near_site_id JOIN site f ON f.id = l.far_site_id
    WHERE (of_job IS NULL OR l.job_id = of_job) AND l.deleted_at IS NULL
      AND ST_DWithin(
        ST_SetSRID(ST_MakeLine(ST_MakePoint(n.lon_deg, n.lat_deg), ST_MakePoint(f.lon_deg, f.lat_deg)), 4326), area,
        (900 + 0.27 * sqrt(ST_DistanceSphere(ST_MakePoint(n.lon_deg, n.lat_deg), ST_MakePoint(f.lon_deg, f.lat_deg))))
          / (111320 * greatest(0.02, cos(radians(n.lat_deg)))))));
END $$;--> statement-breakpoint
CREATE FUNCTION stale_of_link() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF TG_OP = 'INSERT' THEN
    INSERT INTO link_verdict (link_id, job_id) VALUES (NEW.id, NEW.job_id);
    PERFORM pg_notify('dryarc_verdict', '');
  ELSIF (NEW.near_site_id, NEW.far_site_id, NEW.ground_told, NEW.deleted_at) IS DISTINCT FROM (OLD.near_site_id, OLD.far_site_id, OLD.ground_told, OLD.deleted_at) THEN
    PERFORM stale_links(ARRAY[NEW.id]);
  END IF;
  RETURN NULL;
END $$;--> statement-breakpoint
CREATE TRIGGER link_stale AFTER INSERT OR UPDATE ON link FOR EACH ROW EXECUTE FUNCTION stale_of_link();--> statement-breakpoint
CREATE FUNCTION stale_of_design() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF NEW.chosen OR (TG_OP = 'UPDATE' AND OLD.chosen) THEN PERFORM stale_links(ARRAY[NEW.link_id]); END IF;
  RETURN NULL;
END $$;--> statement-breakpoint
CREATE TRIGGER design_stale AFTER INSERT OR UPDATE ON design FOR EACH ROW EXECUTE FUNCTION stale_of_design();--> statement-breakpoint
-- What a site says of itself beyond its place and height is not computed with.
CREATE FUNCTION stale_of_site() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE words text[] := ARRAY['notes','access','owner','cable_entry','power','ticks','version','updated_at','import_id'];
BEGIN
  IF to_jsonb(NEW) - words IS DISTINCT FROM to_jsonb(OLD) - words THEN
    PERFORM stale_links(ARRAY(SELECT id FROM link WHERE NEW.id IN (near_site_id, far_site_id)));
  END IF;
  RETURN NULL;
END $$;--> statement-breakpoint
CREATE TRIGGER site_stale AFTER UPDATE ON site FOR EACH ROW EXECUTE FUNCTION stale_of_site();--> statement-breakpoint
CREATE FUNCTION stale_of_job() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE words text[] := ARRAY['name','place','stage','number','revision','version','created_at','updated_at','centre_lat_deg','centre_lon_deg'];
BEGIN
  IF to_jsonb(NEW) - words IS DISTINCT FROM to_jsonb(OLD) - words THEN
    PERFORM stale_links(ARRAY(SELECT id FROM link WHERE job_id = NEW.id));
  END IF;
  RETURN NULL;
END $$;--> statement-breakpoint
CREATE TRIGGER job_stale AFTER UPDATE ON job FOR EACH ROW EXECUTE FUNCTION stale_of_job();--> statement-breakpoint
-- Many rows at once count by the area they cover together.
CREATE FUNCTION stale_of_new_drawn() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE j record;
BEGIN
  FOR j IN EXECUTE format('SELECT job_id, CASE WHEN count(*) > 200 THEN ST_SetSRID(ST_Extent(%1$I)::geometry, 4326) ELSE ST_Collect(%1$I) END AS area FROM changed GROUP BY job_id', TG_ARGV[0]) LOOP
    PERFORM stale_links_near(j.job_id, j.area);
  END LOOP;
  RETURN NULL;
END $$;--> statement-breakpoint
CREATE FUNCTION stale_of_changed_drawn() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE j record;
BEGIN
  FOR j IN EXECUTE format('SELECT job_id, CASE WHEN count(*) > 400 THEN ST_SetSRID(ST_Extent(%1$I)::geometry, 4326) ELSE ST_Collect(%1$I) END AS area FROM (SELECT job_id, %1$I FROM was UNION ALL SELECT job_id, %1$I FROM changed) both_ways GROUP BY job_id', TG_ARGV[0]) LOOP
    PERFORM stale_links_near(j.job_id, j.area);
  END LOOP;
  RETURN NULL;
END $$;--> statement-breakpoint
CREATE TRIGGER obstacle_new AFTER INSERT ON obstacle REFERENCING NEW TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION stale_of_new_drawn('outline');--> statement-breakpoint
CREATE TRIGGER obstacle_changed AFTER UPDATE ON obstacle REFERENCING OLD TABLE AS was NEW TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION stale_of_changed_drawn('outline');--> statement-breakpoint
CREATE TRIGGER feature_new AFTER INSERT ON feature REFERENCING NEW TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION stale_of_new_drawn('shape');--> statement-breakpoint
CREATE TRIGGER feature_changed AFTER UPDATE ON feature REFERENCING OLD TABLE AS was NEW TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION stale_of_changed_drawn('shape');--> statement-breakpoint
CREATE FUNCTION stale_of_terrain() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF TG_OP = 'INSERT' THEN
    IF NEW.ready THEN PERFORM stale_links_near(NULL, NEW.coverage); END IF;
  ELSIF (NEW.ready, NEW.deleted_at, NEW.sigma_m, NEW.kind, NEW.datum_offset_m, NEW.name) IS DISTINCT FROM (OLD.ready, OLD.deleted_at, OLD.sigma_m, OLD.kind, OLD.datum_offset_m, OLD.name) THEN
    PERFORM stale_links_near(NULL, NEW.coverage);
  END IF;
  RETURN NULL;
END $$;--> statement-breakpoint
CREATE TRIGGER terrain_stale AFTER INSERT OR UPDATE ON terrain_dataset FOR EACH ROW EXECUTE FUNCTION stale_of_terrain();--> statement-breakpoint
CREATE FUNCTION stale_of_sheet() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF TG_OP = 'UPDATE' AND NEW.sheet = OLD.sheet AND NEW.deleted_at IS NOT DISTINCT FROM OLD.deleted_at THEN RETURN NULL; END IF;
  PERFORM stale_links(ARRAY(SELECT link_id FROM design
    WHERE chosen AND deleted_at IS NULL AND NEW.id IN (near_radio_id, far_radio_id, near_antenna_id, far_antenna_id)));
  RETURN NULL;
END $$;--> statement-breakpoint
CREATE TRIGGER radio_stale AFTER INSERT OR UPDATE ON radio FOR EACH ROW EXECUTE FUNCTION stale_of_sheet();--> statement-breakpoint
CREATE TRIGGER antenna_stale AFTER INSERT OR UPDATE ON antenna FOR EACH ROW EXECUTE FUNCTION stale_of_sheet();
