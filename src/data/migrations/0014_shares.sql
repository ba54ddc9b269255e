CREATE TABLE "auth"."share" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"organisation_id" uuid NOT NULL,
	"job_id" uuid NOT NULL,
	"sheets" jsonb NOT NULL,
	"name" text NOT NULL,
	"token_hash" text NOT NULL,
	"made_by" uuid,
	"expires_at" timestamp with time zone NOT NULL,
	"ended_at" timestamp with time zone,
	"opened" integer DEFAULT 0 NOT NULL,
	"last_opened_at" timestamp with time zone,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "share_token_hash_unique" UNIQUE("token_hash")
);
--> statement-breakpoint
ALTER TABLE "auth"."share" ADD CONSTRAINT "share_organisation_id_organisation_id_fk" FOREIGN KEY ("organisation_id") REFERENCES "public"."organisation"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "auth"."share" ADD CONSTRAINT "share_job_id_job_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."job"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "share_job" ON "auth"."share" USING btree ("job_id");