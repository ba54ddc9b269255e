ALTER TABLE "design" ADD COLUMN "need_year_percent" double precision DEFAULT 99.9 NOT NULL;--> statement-breakpoint
ALTER TABLE "design" ADD COLUMN "near_port" integer;--> statement-breakpoint
ALTER TABLE "design" ADD COLUMN "far_port" integer;--> statement-breakpoint
ALTER TABLE "design" ADD COLUMN "permissions" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
UPDATE "design" SET "permissions" = jsonb_build_array(jsonb_build_object(
  'kind', '', 'holder', '', 'number', left("permission", 120), 'place', '',
  'lowMhz', "centre_mhz" - "width_mhz" / 2, 'highMhz', "centre_mhz" + "width_mhz" / 2,
  'maxEirpDbm', null, 'from', null, 'until', null, 'note', CASE WHEN length("permission") > 120 THEN left("permission", 500) ELSE '' END
)) WHERE "permission" IS NOT NULL AND btrim("permission") <> '';
--> statement-breakpoint
UPDATE "change" SET
  "before" = CASE WHEN "before" ? 'permission' THEN ("before" - 'permission') || jsonb_build_object('permissions',
    CASE WHEN coalesce(btrim("before" ->> 'permission'), '') = '' THEN '[]'::jsonb ELSE jsonb_build_array(jsonb_build_object(
      'kind', '', 'holder', '', 'number', left("before" ->> 'permission', 120), 'place', '',
      'lowMhz', ("before" ->> 'centreMhz')::float8 - ("before" ->> 'widthMhz')::float8 / 2, 'highMhz', ("before" ->> 'centreMhz')::float8 + ("before" ->> 'widthMhz')::float8 / 2,
      'maxEirpDbm', null, 'from', null, 'until', null, 'note', CASE WHEN length("before" ->> 'permission') > 120 THEN left("before" ->> 'permission', 500) ELSE '' END)) END) ELSE "before" END,
  "after" = CASE WHEN "after" ? 'permission' THEN ("after" - 'permission') || jsonb_build_object('permissions',
    CASE WHEN coalesce(btrim("after" ->> 'permission'), '') = '' THEN '[]'::jsonb ELSE jsonb_build_array(jsonb_build_object(
      'kind', '', 'holder', '', 'number', left("after" ->> 'permission', 120), 'place', '',
      'lowMhz', ("after" ->> 'centreMhz')::float8 - ("after" ->> 'widthMhz')::float8 / 2, 'highMhz', ("after" ->> 'centreMhz')::float8 + ("after" ->> 'widthMhz')::float8 / 2,
      'maxEirpDbm', null, 'from', null, 'until', null, 'note', CASE WHEN length("after" ->> 'permission') > 120 THEN left("after" ->> 'permission', 500) ELSE '' END)) END) ELSE "after" END
WHERE "entity" = 'design';
