CREATE TABLE "basemap" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"job_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"name" text NOT NULL,
	"address" text,
	"upload_id" uuid,
	"credit" text DEFAULT '' NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	"deleted_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "brief" (
	"job_id" uuid PRIMARY KEY NOT NULL,
	"doc" jsonb NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	"deleted_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "file_import" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"job_id" uuid NOT NULL,
	"upload_id" uuid,
	"file_name" text NOT NULL,
	"what" text NOT NULL,
	"options" jsonb NOT NULL,
	"state" text DEFAULT 'waiting' NOT NULL,
	"done_share" double precision DEFAULT 0 NOT NULL,
	"result" jsonb,
	"fault" text,
	"client_id" text,
	"version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	"deleted_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "photo" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"job_id" uuid NOT NULL,
	"site_id" uuid,
	"from_where" text NOT NULL,
	"bearing_deg" double precision,
	"taken_on" date,
	"note" text DEFAULT '' NOT NULL,
	"mime" text NOT NULL,
	"bytes" "bytea" NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	"deleted_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "upload" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"job_id" uuid,
	"name" text NOT NULL,
	"size_bytes" double precision NOT NULL,
	"received_bytes" double precision DEFAULT 0 NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	"deleted_at" timestamp with time zone
);
--> statement-breakpoint
ALTER TABLE "obstacle" ALTER COLUMN "base_amsl_m" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "change" ADD COLUMN "client_id" text;--> statement-breakpoint
ALTER TABLE "change" ADD COLUMN "undoes" bigint;--> statement-breakpoint
ALTER TABLE "change" ADD COLUMN "undone" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "design" ADD COLUMN "near_mount_id" text;--> statement-breakpoint
ALTER TABLE "design" ADD COLUMN "far_mount_id" text;--> statement-breakpoint
ALTER TABLE "feature" ADD COLUMN "import_id" uuid;--> statement-breakpoint
ALTER TABLE "link" ADD COLUMN "ground_told" jsonb;--> statement-breakpoint
ALTER TABLE "obstacle" ADD COLUMN "free_below_m" double precision DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "obstacle" ADD COLUMN "leaf" text;--> statement-breakpoint
ALTER TABLE "obstacle" ADD COLUMN "height_source" text DEFAULT 'typed' NOT NULL;--> statement-breakpoint
ALTER TABLE "obstacle" ADD COLUMN "import_id" uuid;--> statement-breakpoint
ALTER TABLE "site" ADD COLUMN "material" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "site" ADD COLUMN "cable_entry" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "site" ADD COLUMN "access" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "site" ADD COLUMN "owner" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "site" ADD COLUMN "notes" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "site" ADD COLUMN "mounting_points" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "site" ADD COLUMN "ticks" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "site" ADD COLUMN "import_id" uuid;--> statement-breakpoint
ALTER TABLE "terrain_dataset" ADD COLUMN "crs_definition" text;--> statement-breakpoint
ALTER TABLE "terrain_dataset" ADD COLUMN "datum_offset_m" double precision DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "terrain_dataset" ADD COLUMN "vertical_unit" text DEFAULT 'm' NOT NULL;--> statement-breakpoint
ALTER TABLE "terrain_dataset" ADD COLUMN "ready" boolean DEFAULT true NOT NULL;--> statement-breakpoint
ALTER TABLE "terrain_dataset" ADD COLUMN "import_id" uuid;--> statement-breakpoint
ALTER TABLE "basemap" ADD CONSTRAINT "basemap_job_id_job_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."job"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "basemap" ADD CONSTRAINT "basemap_upload_id_upload_id_fk" FOREIGN KEY ("upload_id") REFERENCES "public"."upload"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "brief" ADD CONSTRAINT "brief_job_id_job_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."job"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "file_import" ADD CONSTRAINT "file_import_job_id_job_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."job"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "file_import" ADD CONSTRAINT "file_import_upload_id_upload_id_fk" FOREIGN KEY ("upload_id") REFERENCES "public"."upload"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "photo" ADD CONSTRAINT "photo_job_id_job_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."job"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "photo" ADD CONSTRAINT "photo_site_id_site_id_fk" FOREIGN KEY ("site_id") REFERENCES "public"."site"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "upload" ADD CONSTRAINT "upload_job_id_job_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."job"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "file_import_job" ON "file_import" USING btree ("job_id");--> statement-breakpoint
CREATE INDEX "photo_job" ON "photo" USING btree ("job_id");--> statement-breakpoint
CREATE INDEX "obstacle_import" ON "obstacle" USING btree ("import_id");--> statement-breakpoint
ALTER TABLE "terrain_tile" ALTER COLUMN "heights_m" SET STORAGE EXTERNAL;
