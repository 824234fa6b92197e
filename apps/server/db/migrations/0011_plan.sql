ALTER TABLE "assignments" ADD COLUMN "week" integer;--> statement-breakpoint
ALTER TABLE "assignments" ADD COLUMN "opens_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "assignments" ADD COLUMN "late" text DEFAULT 'taken' NOT NULL;--> statement-breakpoint
ALTER TABLE "assignments" ADD COLUMN "is_given" boolean DEFAULT true NOT NULL;--> statement-breakpoint
ALTER TABLE "attempts" ADD COLUMN "is_trial" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "classes" ADD COLUMN "starts_on" date;