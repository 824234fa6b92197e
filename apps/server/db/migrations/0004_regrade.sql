CREATE TABLE "regrades" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"exercise_id" text NOT NULL,
	"exercise_version" integer NOT NULL,
	"revision" integer NOT NULL,
	"by_name" text NOT NULL,
	"started_at" timestamp with time zone DEFAULT now() NOT NULL,
	"finished_at" timestamp with time zone,
	"lanes" integer NOT NULL,
	"done" integer DEFAULT 0 NOT NULL,
	CONSTRAINT "regrades_once" UNIQUE("exercise_id","exercise_version","revision")
);
