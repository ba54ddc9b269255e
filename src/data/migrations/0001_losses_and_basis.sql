ALTER TABLE "design" ADD COLUMN "near_connector_loss_db" double precision DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "design" ADD COLUMN "far_connector_loss_db" double precision DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "design" ADD COLUMN "near_wall" text;--> statement-breakpoint
ALTER TABLE "design" ADD COLUMN "far_wall" text;--> statement-breakpoint
ALTER TABLE "design" ADD COLUMN "near_wall_loss_db" double precision;--> statement-breakpoint
ALTER TABLE "design" ADD COLUMN "far_wall_loss_db" double precision;--> statement-breakpoint
ALTER TABLE "design" ADD COLUMN "near_interference_dbm" double precision;--> statement-breakpoint
ALTER TABLE "design" ADD COLUMN "far_interference_dbm" double precision;--> statement-breakpoint
ALTER TABLE "design" ADD COLUMN "near_aim_azimuth_deg" double precision;--> statement-breakpoint
ALTER TABLE "design" ADD COLUMN "far_aim_azimuth_deg" double precision;--> statement-breakpoint
ALTER TABLE "design" ADD COLUMN "near_aim_tilt_deg" double precision;--> statement-breakpoint
ALTER TABLE "design" ADD COLUMN "far_aim_tilt_deg" double precision;--> statement-breakpoint
ALTER TABLE "design" ADD COLUMN "frame_share_to_far" double precision;--> statement-breakpoint
ALTER TABLE "job" ADD COLUMN "climate_zone" text DEFAULT 'temperate' NOT NULL;--> statement-breakpoint
ALTER TABLE "job" ADD COLUMN "leaf_state" text DEFAULT 'in' NOT NULL;--> statement-breakpoint
ALTER TABLE "job" ADD COLUMN "gradient_dn1_n_per_km" double precision DEFAULT -250 NOT NULL;--> statement-breakpoint
ALTER TABLE "job" ADD COLUMN "roughness_sa_m" double precision;--> statement-breakpoint
ALTER TABLE "job" ADD COLUMN "water_surface" text DEFAULT 'auto' NOT NULL;--> statement-breakpoint
ALTER TABLE "job" ADD COLUMN "tide_range_m" double precision DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "job" ADD COLUMN "water_roughness_m" double precision DEFAULT 0.05 NOT NULL;