ALTER TABLE "classes" ADD COLUMN "pass_percent" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "classes" ADD COLUMN "late_percent" integer DEFAULT 100 NOT NULL;