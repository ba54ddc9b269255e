ALTER TABLE "record" DROP CONSTRAINT "record_pkey";--> statement-breakpoint
ALTER TABLE "record" ADD CONSTRAINT "record_id_kind_pk" PRIMARY KEY("id","kind");
