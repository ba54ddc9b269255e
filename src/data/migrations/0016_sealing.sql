CREATE TABLE "auth"."sealing" (
	"mark" text PRIMARY KEY NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
