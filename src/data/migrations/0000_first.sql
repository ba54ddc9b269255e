CREATE TABLE "antenna" (
	"id" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"sheet" jsonb NOT NULL,
	"source" text NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	"deleted_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "change" (
	"id" bigserial PRIMARY KEY NOT NULL,
	"job_id" uuid,
	"entity" text NOT NULL,
	"entity_id" text NOT NULL,
	"action" text NOT NULL,
	"before" jsonb,
	"after" jsonb,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "design" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"link_id" uuid NOT NULL,
	"chosen" boolean DEFAULT true NOT NULL,
	"near_mount_agl_m" double precision NOT NULL,
	"far_mount_agl_m" double precision NOT NULL,
	"near_radio_id" text NOT NULL,
	"far_radio_id" text NOT NULL,
	"near_antenna_id" text,
	"far_antenna_id" text,
	"near_power_dbm" double precision NOT NULL,
	"far_power_dbm" double precision NOT NULL,
	"near_feeder_loss_db" double precision DEFAULT 0 NOT NULL,
	"far_feeder_loss_db" double precision DEFAULT 0 NOT NULL,
	"centre_mhz" double precision NOT NULL,
	"width_mhz" double precision NOT NULL,
	"need_to_far_mbps" double precision,
	"need_to_near_mbps" double precision,
	"trims_m" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"permission" text,
	"version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	"deleted_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "feature" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"job_id" uuid NOT NULL,
	"name" text NOT NULL,
	"shape" geometry(Geometry,4326) NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	"deleted_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "job" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"number" integer NOT NULL,
	"name" text NOT NULL,
	"place" text DEFAULT '' NOT NULL,
	"stage" text DEFAULT 'Enquiry' NOT NULL,
	"visit_on" date NOT NULL,
	"centre_lat_deg" double precision NOT NULL,
	"centre_lon_deg" double precision NOT NULL,
	"rule_domain" text DEFAULT 'cautious' NOT NULL,
	"clearance_policy" text DEFAULT 'sixty' NOT NULL,
	"k_factor" double precision DEFAULT 1.3333333333333333 NOT NULL,
	"tree_policy" text DEFAULT 'strict' NOT NULL,
	"horizon_years" integer DEFAULT 5 NOT NULL,
	"throughput_school" text DEFAULT 'headroom' NOT NULL,
	"free_share" double precision DEFAULT 0.3 NOT NULL,
	"margin_db" double precision DEFAULT 10 NOT NULL,
	"rain_rate_001_mm_h" double precision DEFAULT 30 NOT NULL,
	"temperature_c" double precision DEFAULT 10 NOT NULL,
	"pressure_hpa" double precision DEFAULT 1013 NOT NULL,
	"vapour_density_g_m3" double precision DEFAULT 7.5 NOT NULL,
	"revision" integer DEFAULT 1 NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	"deleted_at" timestamp with time zone,
	CONSTRAINT "job_number_unique" UNIQUE("number")
);
--> statement-breakpoint
CREATE TABLE "link" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"job_id" uuid NOT NULL,
	"number" integer NOT NULL,
	"near_site_id" uuid NOT NULL,
	"far_site_id" uuid NOT NULL,
	"label" text DEFAULT '' NOT NULL,
	"stage" text DEFAULT 'Planned' NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	"deleted_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "obstacle" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"job_id" uuid NOT NULL,
	"name" text NOT NULL,
	"kind" text NOT NULL,
	"outline" geometry(Polygon,4326) NOT NULL,
	"base_amsl_m" double precision NOT NULL,
	"height_m" double precision NOT NULL,
	"crown_base_m" double precision DEFAULT 0 NOT NULL,
	"growth_m_per_year" double precision DEFAULT 0 NOT NULL,
	"height_sigma_m" double precision NOT NULL,
	"species" text,
	"source" text DEFAULT 'drawn' NOT NULL,
	"surveyed_on" date NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	"deleted_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "radio" (
	"id" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"band_key" text NOT NULL,
	"family" text NOT NULL,
	"sheet" jsonb NOT NULL,
	"source" text NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	"deleted_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "site" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"job_id" uuid NOT NULL,
	"name" text NOT NULL,
	"lat_deg" double precision NOT NULL,
	"lon_deg" double precision NOT NULL,
	"mount_agl_m" double precision NOT NULL,
	"mount_max_agl_m" double precision,
	"structure" text DEFAULT '' NOT NULL,
	"power" text DEFAULT '' NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	"deleted_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "terrain_dataset" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"name" text NOT NULL,
	"kind" text NOT NULL,
	"crs" text NOT NULL,
	"origin_x" double precision NOT NULL,
	"origin_y" double precision NOT NULL,
	"step_x" double precision NOT NULL,
	"step_y" double precision NOT NULL,
	"cols" integer NOT NULL,
	"rows" integer NOT NULL,
	"cell_m" double precision NOT NULL,
	"sigma_m" double precision NOT NULL,
	"tile_cells" integer NOT NULL,
	"vertical_datum" text NOT NULL,
	"source" text NOT NULL,
	"coverage" geometry(Polygon,4326) NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	"deleted_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "terrain_tile" (
	"dataset_id" uuid NOT NULL,
	"tile_row" integer NOT NULL,
	"tile_col" integer NOT NULL,
	"heights_m" "bytea" NOT NULL,
	CONSTRAINT "terrain_tile_dataset_id_tile_row_tile_col_pk" PRIMARY KEY("dataset_id","tile_row","tile_col")
);
--> statement-breakpoint
ALTER TABLE "change" ADD CONSTRAINT "change_job_id_job_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."job"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "design" ADD CONSTRAINT "design_link_id_link_id_fk" FOREIGN KEY ("link_id") REFERENCES "public"."link"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "design" ADD CONSTRAINT "design_near_radio_id_radio_id_fk" FOREIGN KEY ("near_radio_id") REFERENCES "public"."radio"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "design" ADD CONSTRAINT "design_far_radio_id_radio_id_fk" FOREIGN KEY ("far_radio_id") REFERENCES "public"."radio"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "design" ADD CONSTRAINT "design_near_antenna_id_antenna_id_fk" FOREIGN KEY ("near_antenna_id") REFERENCES "public"."antenna"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "design" ADD CONSTRAINT "design_far_antenna_id_antenna_id_fk" FOREIGN KEY ("far_antenna_id") REFERENCES "public"."antenna"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "feature" ADD CONSTRAINT "feature_job_id_job_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."job"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "link" ADD CONSTRAINT "link_job_id_job_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."job"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "link" ADD CONSTRAINT "link_near_site_id_site_id_fk" FOREIGN KEY ("near_site_id") REFERENCES "public"."site"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "link" ADD CONSTRAINT "link_far_site_id_site_id_fk" FOREIGN KEY ("far_site_id") REFERENCES "public"."site"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "obstacle" ADD CONSTRAINT "obstacle_job_id_job_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."job"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "site" ADD CONSTRAINT "site_job_id_job_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."job"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "terrain_tile" ADD CONSTRAINT "terrain_tile_dataset_id_terrain_dataset_id_fk" FOREIGN KEY ("dataset_id") REFERENCES "public"."terrain_dataset"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "change_job" ON "change" USING btree ("job_id","id");--> statement-breakpoint
CREATE INDEX "design_link" ON "design" USING btree ("link_id");--> statement-breakpoint
CREATE INDEX "feature_job" ON "feature" USING btree ("job_id");--> statement-breakpoint
CREATE INDEX "feature_shape" ON "feature" USING gist ("shape");--> statement-breakpoint
CREATE UNIQUE INDEX "link_number" ON "link" USING btree ("job_id","number");--> statement-breakpoint
CREATE INDEX "obstacle_job" ON "obstacle" USING btree ("job_id");--> statement-breakpoint
CREATE INDEX "obstacle_outline" ON "obstacle" USING gist ("outline");--> statement-breakpoint
CREATE INDEX "site_job" ON "site" USING btree ("job_id");