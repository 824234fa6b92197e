CREATE TABLE "looks" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"attempt_id" uuid NOT NULL,
	"asked" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"answer" text,
	"by_name" text,
	"answered_at" timestamp with time zone
);
--> statement-breakpoint
ALTER TABLE "looks" ADD CONSTRAINT "looks_attempt_id_attempts_id_fk" FOREIGN KEY ("attempt_id") REFERENCES "public"."attempts"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "looks_open" ON "looks" USING btree ("attempt_id") WHERE "looks"."answer" is null;--> statement-breakpoint
CREATE INDEX "looks_attempt" ON "looks" USING btree ("attempt_id");