ALTER TABLE "auth"."share" ADD COLUMN "identity_out" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "auth"."share" ADD COLUMN "told" jsonb DEFAULT '[]'::jsonb NOT NULL;