CREATE TABLE "webhook" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"organisation_id" uuid DEFAULT own_organisation() NOT NULL,
	"name" text NOT NULL,
	"url" text NOT NULL,
	"job_ids" jsonb,
	"secret" text NOT NULL,
	"ended_at" timestamp with time zone,
	"failures" integer DEFAULT 0 NOT NULL,
	"next_at" timestamp with time zone DEFAULT now() NOT NULL,
	"paused_at" timestamp with time zone,
	"claimed_until" timestamp with time zone,
	"last_ok_at" timestamp with time zone,
	"last_answer" text DEFAULT '' NOT NULL,
	"dropped" integer DEFAULT 0 NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "webhook_due" (
	"webhook_id" uuid NOT NULL,
	"organisation_id" uuid DEFAULT own_organisation() NOT NULL,
	"change_id" bigint NOT NULL,
	"call_id" uuid,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "webhook_due_webhook_id_change_id_pk" PRIMARY KEY("webhook_id","change_id")
);
--> statement-breakpoint
ALTER TABLE "upload" ADD COLUMN "person_id" uuid;--> statement-breakpoint
ALTER TABLE "webhook" ADD CONSTRAINT "webhook_organisation_id_organisation_id_fk" FOREIGN KEY ("organisation_id") REFERENCES "public"."organisation"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "webhook_due" ADD CONSTRAINT "webhook_due_webhook_id_webhook_id_fk" FOREIGN KEY ("webhook_id") REFERENCES "public"."webhook"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "webhook_due" ADD CONSTRAINT "webhook_due_organisation_id_organisation_id_fk" FOREIGN KEY ("organisation_id") REFERENCES "public"."organisation"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "webhook_due_at" ON "webhook_due" USING btree ("at");