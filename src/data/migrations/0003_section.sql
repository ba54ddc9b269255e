ALTER TABLE "change" ADD COLUMN "step" uuid;--> statement-breakpoint
ALTER TABLE "design" ADD COLUMN "name" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "design" ADD COLUMN "policy_over" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "job" ADD COLUMN "k_low_20" double precision DEFAULT 0.6 NOT NULL;--> statement-breakpoint
ALTER TABLE "job" ADD COLUMN "k_low_50" double precision DEFAULT 0.8 NOT NULL;--> statement-breakpoint
ALTER TABLE "job" ADD COLUMN "k_low_100" double precision DEFAULT 0.9 NOT NULL;--> statement-breakpoint
ALTER TABLE "site" ADD COLUMN "mast_cost_per_m" double precision;